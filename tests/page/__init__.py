"""The page's own arithmetic: tests in TypeScript, run by vitest, reported one by one by Django's runner."""
