"""Speed and memory, measured and printed, never asserted: ./benchmarks/run."""
