"""A shim between SQLite and its files, which fails on command.

It takes the place of the default VFS of the SQLite that Python uses and hands
everything on; reads and writes of a file pass through Python, where they may
fail. What to do stands in a control file of a few bytes that another process
writes.
"""

import _sqlite3
import ctypes
import mmap
import os
import signal
import struct
from enum import IntEnum
from pathlib import Path
from typing import Final

_OK: Final = 0
_IOERR_READ: Final = 10 | (1 << 8)


class Order(IntEnum):
    """What the disk does."""

    WORK = 0
    #: Reads fail until it works again.
    FAIL_READS = 1
    #: Half of the next write reaches the disk, and then the power is gone.
    TEAR = 2


class Control:
    """The order, and by how far the clock is off (s), shared between two processes."""

    _WHOLE = struct.Struct("<Bd")

    def __init__(self, path: Path) -> None:
        if not path.exists():
            path.write_bytes(bytes(self._WHOLE.size))
        with path.open("r+b") as file:
            self._shared = mmap.mmap(file.fileno(), self._WHOLE.size)

    @property
    def order(self) -> Order:
        return Order(self._shared[0])

    @order.setter
    def order(self, order: Order) -> None:
        self._shared[0] = order

    @property
    def clock_s(self) -> float:
        return float(self._WHOLE.unpack(self._shared[:])[1])

    @clock_s.setter
    def clock_s(self, offset_s: float) -> None:
        self._shared[:] = self._WHOLE.pack(self._shared[0], offset_s)


_File = ctypes.c_void_p
#: The name is handed on as the pointer it is: SQLite keeps it, and reads what follows it.
_OPEN: Final = ctypes.CFUNCTYPE(
    ctypes.c_int, ctypes.c_void_p, ctypes.c_void_p, _File, ctypes.c_int,
    ctypes.POINTER(ctypes.c_int),
)  # fmt: skip
_MOVE: Final = ctypes.CFUNCTYPE(ctypes.c_int, _File, ctypes.c_void_p, ctypes.c_int, ctypes.c_int64)
#: Pointers of `sqlite3_io_methods` up to the ones that memory mapping needs (version 3).
_METHODS: Final = 19
_READ_AT, _WRITE_AT = 2, 3
#: Of `sqlite3_vfs`: its size up to version 3, and where `xOpen` stands.
_VFS_BYTES: Final = 168
_OPEN_AT: Final = 40


class FailingDisk:
    """The shim; it lives as long as the process."""

    def __init__(self, control: Control) -> None:
        self._control = control
        self._tables: dict[int, ctypes.Array[ctypes.c_void_p]] = {}
        self._kept: list[object] = []
        # The very library that Python's own module is linked to.
        ctypes.CDLL(_sqlite3.__file__)
        library = ctypes.CDLL("libsqlite3.so.0")
        library.sqlite3_vfs_find.restype = ctypes.c_void_p
        first = library.sqlite3_vfs_find(None)
        self._vfs = ctypes.create_string_buffer(ctypes.string_at(first, _VFS_BYTES), _VFS_BYTES)
        self._name = ctypes.create_string_buffer(b"failing")
        address = ctypes.addressof(self._vfs)
        # pNext is SQLite's own to set; zName follows it.
        ctypes.c_void_p.from_address(address + 16).value = None
        ctypes.c_void_p.from_address(address + 24).value = ctypes.addressof(self._name)
        opens = ctypes.c_void_p.from_address(first + _OPEN_AT).value
        assert opens is not None
        self._open = _OPEN(opens)
        wrapped = _OPEN(self._opened)
        self._kept.append(wrapped)
        ctypes.c_void_p.from_address(address + _OPEN_AT).value = ctypes.cast(
            wrapped, ctypes.c_void_p
        ).value
        assert library.sqlite3_vfs_register(ctypes.c_void_p(address), 1) == _OK

    def _opened(self, vfs: int, name: int, file: int, flags: int, out: object) -> int:
        code: int = self._open(vfs, name, file, flags, out)
        methods = ctypes.c_void_p.from_address(file)
        if code == _OK and methods.value:
            methods.value = self._methods(methods.value)
        return code

    def _methods(self, theirs: int) -> int:
        """A file's methods with reading and writing replaced; one table for each kind of file."""
        if theirs not in self._tables:
            table = (ctypes.c_void_p * _METHODS).from_buffer_copy(
                ctypes.string_at(theirs, _METHODS * ctypes.sizeof(ctypes.c_void_p))
            )
            read, write = _MOVE(table[_READ_AT]), _MOVE(table[_WRITE_AT])  # type: ignore[arg-type]

            def reading(file: int, into: int, amount: int, offset: int) -> int:
                if self._control.order is Order.FAIL_READS:
                    return _IOERR_READ
                return int(read(file, into, amount, offset))

            def writing(file: int, source: int, amount: int, offset: int) -> int:
                if self._control.order is Order.TEAR:
                    self._control.order = Order.WORK
                    write(file, source, amount // 2, offset)
                    os.kill(os.getpid(), signal.SIGKILL)
                return int(write(file, source, amount, offset))

            ours = (_MOVE(reading), _MOVE(writing))
            for at, replaced in zip((_READ_AT, _WRITE_AT), ours, strict=True):
                table[at] = ctypes.cast(replaced, ctypes.c_void_p).value
            # Memory mapping would go past the shim.
            ctypes.cast(table, ctypes.POINTER(ctypes.c_int))[0] = 2
            self._kept += [read, write, *ours]
            self._tables[theirs] = table
        return ctypes.addressof(self._tables[theirs])
