"""Names of the parts of a job document."""

from typing import NewType

PlaneId = NewType("PlaneId", str)
ObstructionId = NewType("ObstructionId", str)
OptionId = NewType("OptionId", str)
PlacedId = NewType("PlacedId", str)
BillId = NewType("BillId", str)
LoadId = NewType("LoadId", str)
ExistingId = NewType("ExistingId", str)
KeepOutId = NewType("KeepOutId", str)
LotLineId = NewType("LotLineId", str)
ShadeId = NewType("ShadeId", str)
AttachmentId = NewType("AttachmentId", str)
BoxId = NewType("BoxId", str)
