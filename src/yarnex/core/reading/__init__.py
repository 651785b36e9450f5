"""Files in, documents out: the format is found by content first, then by ending, and read by its own module.

In: paths of files and folders. Out: `Document`s, and for each file that could not be read an UnreadableError
that says why; one bad file never stops the others.
"""

from yarnex.core.reading.files import ReadOptions, find_files, read_all, read_data, read_document, read_file
from yarnex.core.reading.formats import READABLE
from yarnex.core.reading.outcome import Reading

__all__ = ["READABLE", "ReadOptions", "Reading", "find_files", "read_all", "read_data", "read_document", "read_file"]
