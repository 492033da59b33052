"""Simulated devices and services that ship with the product, each started on its own."""
