"""Wembit: the working memory and the arithmetic of a needle-felting studio."""
