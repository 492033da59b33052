"""What the trade knows: materials, kinds of parts, notions, wire, schools, cautions."""
