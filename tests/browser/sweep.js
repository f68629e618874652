/*
 * What a person would find wrong with a page as it stands, told in a line each; nothing where nothing is wrong.
 * `phone`: a finger needs 44 px, and nothing may need a scroll sideways.
 */
(phone) => {
  const found = new Set();
  const say = (what, of) => found.add(`${what}: ${of.trim().replace(/\s+/g, ' ').slice(0, 70)}`);
  const named = (e) => e.getAttribute?.('aria-label') || e.textContent || e.className?.baseVal || e.outerHTML.slice(0, 80);
  const seen = (e) => {
    if (!e.checkVisibility({ opacityProperty: true, visibilityProperty: true })) return false;
    return !e.closest('.sr-only, [inert], details:not([open]) > :not(summary)');
  };
  /* Numbers that are none, in what is written and in what is drawn. */
  for (const e of document.querySelectorAll('body *')) {
    for (const { name, value } of e.attributes) if (/\b(NaN|Infinity|undefined)\b/.test(value)) say(`${name} is no number`, value);
    for (const node of e.childNodes) {
      if (node.nodeType === 3 && /\b(NaN|Infinity|undefined|\[object)\b/.test(node.data) && !e.closest('script, style')) say('no number', node.data);
    }
  }
  const wide = document.documentElement;
  if (wide.scrollWidth > wide.clientWidth) say('scrolls sideways', `${wide.scrollWidth} px on ${wide.clientWidth}`);

  /* Labels of a drawing: none over another, none cut off by its edge. */
  const overlap = (a, b) => Math.min(a.right, b.right) - Math.max(a.left, b.left) > 1 && Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 2;
  for (const svg of document.querySelectorAll('svg')) {
    if (!seen(svg)) continue;
    const edge = svg.getBoundingClientRect();
    const labels = [...svg.querySelectorAll('text')].filter((e) => seen(e) && e.textContent.trim() && !e.closest('defs'));
    /* A line of letters is lower than its box: ascenders and descenders reach over it at both ends. */
    const boxes = labels.map((e) => {
      const r = e.getBoundingClientRect();
      const less = r.height * 0.14;
      return { left: r.left, right: r.right, top: r.top + less, bottom: r.bottom - less };
    });
    boxes.forEach((box, i) => {
      const cut = getComputedStyle(svg).overflow !== 'visible';
      if (cut && (box.left < edge.left - 1 || box.right > edge.right + 1 || box.top < edge.top - 1 || box.bottom > edge.bottom + 1))
        say('label cut off', named(labels[i]));
      else if (!svg.closest('.scrolls') && (box.left < -1 || box.right > wide.clientWidth + 1)) say('label off the page', named(labels[i]));
      for (let j = i + 1; j < boxes.length; j++) {
        if (overlap(box, boxes[j])) say('label over another', `${named(labels[i])} / ${named(labels[j])}`);
      }
    });
  }
  /* Text that does not fit where it stands. */
  for (const e of document.querySelectorAll('body *')) {
    if (e.closest('svg') || !seen(e) || e.matches('input, textarea, select, option')) continue;
    const own = [...e.childNodes].some((node) => node.nodeType === 3 && node.data.trim());
    const style = getComputedStyle(e);
    if (own && style.overflowX !== 'visible' && e.scrollWidth > e.clientWidth + 1 && !/auto|scroll/.test(style.overflowX)) say('text cut', named(e));
    if (own) {
      const range = document.createRange();
      range.selectNodeContents(e);
      const r = range.getBoundingClientRect();
      const scrolls = e.closest('pre, .scrolls');
      if (r.width && !scrolls && (r.right > wide.clientWidth + 1 || r.left < -1)) say('text off the page', named(e));
    }
  }
  if (!phone) return [...found];
  /* A finger hits within 22 px of the middle; what lies in a running line of text is as high as its line. */
  for (const e of document.querySelectorAll('button, a[href], select, input, textarea, summary, [role=button], [role=spinbutton], [role=slider]')) {
    if (!seen(e) || e.closest('svg') || e.disabled) continue;
    const r = e.getBoundingClientRect();
    if (!r.width || !r.height) continue;
    const label = e.matches('input[type=checkbox], input[type=radio]') ? e.closest('label') : null;
    const box = label ? label.getBoundingClientRect() : r;
    const after = getComputedStyle(e, '::after');
    const more = after.content !== 'none' && after.position === 'absolute' ? [Math.max(0, -parseFloat(after.top) || 0), Math.max(0, -parseFloat(after.left) || 0)] : [0, 0];
    const [w, h] = [box.width + 2 * more[1], box.height + 2 * more[0]];
    const inline = getComputedStyle(e).display === 'inline' && e.parentElement.textContent.trim() !== e.textContent.trim();
    if (!inline && (h < 43.5 || w < 43.5)) say(`only ${Math.round(w)} × ${Math.round(h)} px to hit`, named(e));
  }
  return [...found];
}
