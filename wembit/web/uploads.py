"""Pictures that makers add: read, turned upright, made smaller, stripped of what else the file carries."""

from __future__ import annotations

import io
import uuid
from typing import TYPE_CHECKING, Any

from django.core.files.base import ContentFile
from PIL import Image, ImageOps, UnidentifiedImageError

from wembit.web.limits import PICTURE_BYTES, PICTURE_PIXELS

from .errors import Refusal

if TYPE_CHECKING:
    from wembit.web.studio.models import Studio

SIDE = 1600
FORMATS = ("JPEG", "PNG", "WEBP")


def cleaned(upload: Any, studio: Studio) -> ContentFile | None:
    """A JPEG of at most 1600 px, named within the studio's folder. Raises `Refusal`; None for no file."""
    if not upload:
        return None
    if upload.size > PICTURE_BYTES:
        raise Refusal("That picture is larger than 20 MB. Send a smaller one.", "photo")
    try:
        with Image.open(upload, formats=FORMATS) as picture:
            if picture.width * picture.height > PICTURE_PIXELS:
                raise Refusal("That picture has more than 60 million pixels. Send a smaller one.", "photo")
            if getattr(picture, "n_frames", 1) > 1:
                raise Refusal("That picture moves. Send a still one.", "photo")
            upright = ImageOps.exif_transpose(picture).convert("RGB")
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError):
        raise Refusal("That file is no picture that can be read. Send a JPEG, PNG or WebP.", "photo") from None
    upright.thumbnail((SIDE, SIDE))
    out = io.BytesIO()
    upright.save(out, "JPEG", quality=85)
    return ContentFile(out.getvalue(), name=f"{studio.pk}/{uuid.uuid4().hex}.jpg")
