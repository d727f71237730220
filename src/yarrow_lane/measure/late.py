"""Modules that are loaded when they are first used, so that the window does not wait for them."""

import importlib
from types import ModuleType
from typing import Any


class _Late(ModuleType):
    def __getattr__(self, name: str) -> Any:
        return getattr(self._module(), name)

    def __setattr__(self, name: str, value: Any) -> None:
        # A setting belongs to the module, not to what stands for it.
        setattr(self._module(), name, value)

    def _module(self) -> ModuleType:
        """The module; kept, for asking the import system costs more than many a call."""
        kept = self.__dict__.get("_kept")
        if kept is None:
            kept = self.__dict__["_kept"] = importlib.import_module(self.__name__)
        return kept


def late(name: str) -> Any:
    """Stands for the module of that name; the import happens at the first look into it.

    Written beside `if TYPE_CHECKING: import name`, so that the types are still checked.
    """
    return _Late(name)
