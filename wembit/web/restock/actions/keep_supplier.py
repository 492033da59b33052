"""Add a supplier, or change its lead time and postage."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.db import IntegrityError, transaction
from django.shortcuts import get_object_or_404

from wembit.web.errors import Refusal
from wembit.web.restock.models import Supplier
from wembit.web.studio.models import OWNER, Member


@transaction.atomic
def keep_supplier(
    member: Member,
    *,
    name: str,
    lead_days: int,
    postage: Decimal,
    minimum: Decimal = Decimal(0),
    takes_files: bool = False,
    supplier_id: UUID | None = None,
) -> Supplier:
    """Keep name, lead time in days, postage, the least that an order comes to, and whether orders go there as files. Raises
    `Refusal` for a name that is taken, `Http404`.
    """
    member.must_be(OWNER)
    supplier = Supplier(studio=member.studio)
    if supplier_id:
        supplier = get_object_or_404(Supplier.objects.of(member.studio), pk=supplier_id)
    supplier.name, supplier.lead_days, supplier.postage = " ".join(name.split()), lead_days, postage
    supplier.minimum, supplier.takes_files = minimum, takes_files
    if not supplier.name:
        raise Refusal("Give the supplier a name.", "name")
    if not 0 <= lead_days <= 365:
        raise Refusal("Write how many days a parcel takes: 0 to 365.", "lead_days")
    try:
        with transaction.atomic():
            supplier.save()
    except IntegrityError:
        raise Refusal(f"There is a {supplier.name} already.", "name") from None
    return supplier
