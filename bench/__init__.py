"""Speed and memory, printed as ratios within one run; nothing here fails a test."""
