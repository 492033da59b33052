"""A figure turned under finger, mouse and keys, and its four views on one sheet."""
