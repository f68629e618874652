/** The working of a figure: its formula in words, and again with the numbers put in. */
import type { Figure } from '../api/client';
import { write } from '../format';

const WORDS: Record<string, string> = {
  'ceil(': 'round up (',
  'floor(': 'round down (',
  'round(': 'round (',
  'up_to(': 'up to a whole step (',
  'down_to(': 'down to a whole step (',
  'sqrt(': '√(',
  'ln(': 'natural logarithm of (',
  'log2(': 'logarithm to two of (',
  'asin(': 'arcsin (',
  'atan(': 'arctan (',
  'atan2(': 'direction of (',
  'degrees(': 'in degrees (',
  'abs(': 'size of (',
  'max(': 'the larger of (',
  'min(': 'the smaller of (',
  'sin(': 'sine of (',
  'cos(': 'cosine of (',
  'tan(': 'tangent of (',
  'radians(': '(',
  '**3': '³',
  '**4': '⁴',
  '**': ' to the power of ',
  '**2': '²',
  '*': '×',
  '/': '÷',
  '-': '−'
};
const PIECE = /\*\*[234](?![\d*])|\*\*|[a-z_]+2?\(|[a-z_]+\d*|[*/-]/g;

function put(expression: string, symbol: (name: string) => string | undefined): string {
  const inner = /^max\([01], (.*)\)$/.exec(expression)?.[1] ?? expression;
  return `= ${inner.replace(PIECE, (piece) => WORDS[piece] ?? symbol(piece) ?? piece)}`;
}

export function working(figure: Figure, zone = 'UTC'): { words: string; numbers: string } {
  const terms = new Map(figure.terms.map((term) => [term.symbol, term]));
  return {
    words: put(figure.expression, (name) => name.replaceAll('_', ' ')),
    // A power is of the number with its unit, and not of the unit alone.
    numbers: put(figure.expression.replace(/\b[a-z_]+\d*(?=\*\*)/g, '($&)'), (name) => {
      const term = terms.get(name);
      return term && write(term.value, term.unit, zone);
    })
  };
}

export function workingText(figure: Figure, zone: string): string {
  const { words, numbers } = working(figure, zone);
  const terms = figure.terms.map((term) => `  ${term.label}: ${write(term.value, term.unit, zone)}`);
  const head = `${figure.label}: ${write(figure.value, figure.unit, zone)}`;
  return [head, `  ${words}`, `  ${numbers}`, ...terms, `  (${figure.source})`].join('\n');
}
