"""Write wembit/core/colour/basis.csv from the CIE's tables as colour-science carries them: scripts/colour_basis.py."""

import warnings
from pathlib import Path

with warnings.catch_warnings():
    warnings.simplefilter("ignore")
    import colour

OUT = Path(__file__).resolve().parent.parent / "wembit" / "core" / "colour" / "basis.csv"


def main() -> None:
    observer = colour.MSDS_CMFS["CIE 1931 2 Degree Standard Observer"]
    light = colour.SDS_ILLUMINANTS["D65"]
    rows = ["nm,x,y,z,d65"]
    for nm in range(380, 740, 10):
        x, y, z = observer[nm]
        rows.append(f"{nm},{x:.10g},{y:.10g},{z:.10g},{light[nm]:.10g}")
    OUT.write_text("\n".join(rows) + "\n", encoding="ascii")


if __name__ == "__main__":
    main()
