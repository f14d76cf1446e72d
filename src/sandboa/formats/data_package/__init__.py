"""A whole house as a Tabular Data Package: a zip of CSV files with datapackage.json and photos."""

from sandboa.formats.data_package.describe import DESCRIPTOR, PackageError
from sandboa.formats.data_package.read import (
    LARGEST_PACKAGE_BYTES,
    LARGEST_PACKED_BYTES,
    read_package,
)
from sandboa.formats.data_package.write import write_package

__all__ = [
    "DESCRIPTOR",
    "LARGEST_PACKAGE_BYTES",
    "LARGEST_PACKED_BYTES",
    "PackageError",
    "read_package",
    "write_package",
]
