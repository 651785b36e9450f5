"""The folder that a person works in: where its readings are kept, and reading with what was kept.

In: paths and options. Out: readings, in the order given, from the store where the file is unchanged.
"""

from yarnex.core.binder.keeping import read_kept
from yarnex.core.binder.settings import Settings, settings_of
from yarnex.core.binder.store import Store, store_for

__all__ = ["Settings", "Store", "read_kept", "settings_of", "store_for"]
