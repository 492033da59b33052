"""Eyes, wire, needles, drawn to size."""
