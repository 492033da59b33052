"""The first stocktake and parcels."""
