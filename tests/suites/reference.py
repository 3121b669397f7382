"""Decodes pictures by their own makers' libraries: libpng and libtiff, called as they are.

Reads lines of `kind<TAB>picture<TAB>output` and writes RGBA, row-major, not premultiplied, 8 bits;
behind it prints one line each: width and height, or a dash where the library refuses it.
"""

import ctypes
import sys

png = ctypes.CDLL("libpng16.so.16")
tiff = ctypes.CDLL("libtiff.so.6")

PNG_IMAGE_VERSION = 1
PNG_FORMAT_RGBA = 3
# Else 16 bits without a word on their gamma would be taken for linear.
PNG_IMAGE_FLAG_16BIT_sRGB = 4
ORIENTATION_TOPLEFT = 1
TIFFTAG_IMAGEWIDTH = 256
TIFFTAG_IMAGELENGTH = 257
TIFFTAG_ORIENTATION = 274
TIFFTAG_EXTRASAMPLES = 338
EXTRASAMPLE_UNASSALPHA = 2


class PngImage(ctypes.Structure):
    """png_image of png.h."""

    _fields_ = [
        ("opaque", ctypes.c_void_p),
        *[(name, ctypes.c_uint32) for name in ("version", "width", "height", "format", "flags")],
        ("colormap_entries", ctypes.c_uint32),
        ("warning_or_error", ctypes.c_uint32),
        ("message", ctypes.c_char * 64),
    ]


def read_png(path):
    image = PngImage(version=PNG_IMAGE_VERSION)
    if not png.png_image_begin_read_from_file(ctypes.byref(image), path.encode()):
        return None
    image.format = PNG_FORMAT_RGBA
    image.flags |= PNG_IMAGE_FLAG_16BIT_sRGB
    pixels = ctypes.create_string_buffer(image.width * image.height * 4)
    if not png.png_image_finish_read(ctypes.byref(image), None, pixels, 0, None):
        return None
    return image.width, image.height, pixels.raw


tiff.TIFFOpen.restype = ctypes.c_void_p
for name in ("TIFFClose", "TIFFGetField", "TIFFReadRGBAImageOriented"):
    getattr(tiff, name).argtypes = None
handler = ctypes.CFUNCTYPE(None, ctypes.c_char_p, ctypes.c_char_p, ctypes.c_void_p)
quiet = handler(lambda *_: None)
tiff.TIFFSetErrorHandler(quiet)
tiff.TIFFSetWarningHandler(quiet)


def read_tiff(path):
    file = tiff.TIFFOpen(path.encode(), b"r")
    if not file:
        return None
    file = ctypes.c_void_p(file)
    width, height = ctypes.c_uint32(), ctypes.c_uint32()
    orientation = ctypes.c_uint16(1)
    tiff.TIFFGetField(file, TIFFTAG_IMAGEWIDTH, ctypes.byref(width))
    tiff.TIFFGetField(file, TIFFTAG_IMAGELENGTH, ctypes.byref(height))
    tiff.TIFFGetField(file, TIFFTAG_ORIENTATION, ctypes.byref(orientation))
    pixels = ctypes.create_string_buffer(width.value * height.value * 4)
    # Turned by a quarter it is left lying: the library mirrors, and never turns.
    done = tiff.TIFFReadRGBAImageOriented(
        file, width, height, pixels, ORIENTATION_TOPLEFT, 1
    )
    tiff.TIFFClose(file)
    if not done:
        return None
    return width.value, height.value, plain(bytearray(pixels.raw))


def plain(pixels):
    """The library multiplies colours by their opacity."""
    if not set(pixels[3::4]) - {0, 255}:
        return bytes(pixels)
    for at in range(0, len(pixels), 4):
        alpha = pixels[at + 3]
        if alpha in (0, 255):
            continue
        for i in range(at, at + 3):
            pixels[i] = min(255, round(pixels[i] * 255 / alpha))
    return bytes(pixels)


for line in sys.stdin:
    kind, path, output = line.rstrip("\n").split("\t")
    read = {"png": read_png, "tiff": read_tiff}[kind](path)
    if read is None:
        print("-")
        continue
    width, height, data = read
    with open(output, "wb") as file:
        file.write(data)
    print(width, height)
