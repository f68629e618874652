"""One file per question: plan section and earlier answers in; figures, traces and snags out."""
