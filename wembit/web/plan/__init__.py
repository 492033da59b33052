"""Projects, needs and promises."""
