"""What pages are sent: values that never change and hold no number that is none."""

from pydantic import BaseModel, ConfigDict


class Drawn(BaseModel):
    """Something drawn or said on a page.

    >>> class Tick(Drawn):
    ...     at_mm: float
    >>> Tick(at_mm=25.4).at_mm
    25.4
    """

    model_config = ConfigDict(frozen=True, allow_inf_nan=False)
