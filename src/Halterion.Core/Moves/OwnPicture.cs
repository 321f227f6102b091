using System.Buffers.Binary;
using System.Text;

namespace Halterion.Core.Moves;

/// <summary>A photo or drawing that a user gives to an own move, as a data address, without what a camera writes beside it.</summary>
public static class OwnPicture
{
    /// <summary>Bytes of a picture: a move's own card is small, and it travels in every export.</summary>
    public const int MostBytes = 90_000;

    /// <summary>Characters of its data address.</summary>
    public const int MostText = 125_000;

    private const string Jpeg = "data:image/jpeg;base64,";
    private const string Png = "data:image/png;base64,";
    private static readonly byte[] PngStart = [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A];
    private static readonly string[] PngKept = ["IHDR", "PLTE", "tRNS", "gAMA", "sRGB", "cHRM", "IDAT", "IEND"];

    /// <summary>The same picture without place, time and camera; null where it is no JPEG or PNG, or too large.</summary>
    public static string? Clean(string address)
    {
        var start = address.StartsWith(Jpeg, StringComparison.Ordinal)
            ? Jpeg
            : address.StartsWith(Png, StringComparison.Ordinal) ? Png
            : null;
        if (start is null || address.Length > MostText)
        {
            return null;
        }

        var bytes = new byte[address.Length];
        return !Convert.TryFromBase64String(address[start.Length..], bytes, out var length) || length > MostBytes ? null
            : (start == Jpeg ? OfJpeg(bytes.AsSpan(0, length)) : OfPng(bytes.AsSpan(0, length))) is { } clean
                ? start + Convert.ToBase64String(clean)
                : null;
    }

    /// <summary>Segments but for APP1–APP13, APP15 and comments (ITU-T T.81, annex B).</summary>
    private static byte[]? OfJpeg(ReadOnlySpan<byte> data)
    {
        if (data.Length < 4 || data[0] != 0xFF || data[1] != 0xD8)
        {
            return null;
        }

        var kept = new List<byte> { 0xFF, 0xD8 };
        for (var i = 2; i + 4 <= data.Length;)
        {
            if (data[i] != 0xFF)
            {
                return null;
            }

            var marker = data[i + 1];
            if (marker == 0xDA)
            {
                // From here on it is the picture itself.
                var end = data.LastIndexOf<byte>([0xFF, 0xD9]);
                if (end < i)
                {
                    return null;
                }

                kept.AddRange(data[i..(end + 2)]);
                return [.. kept];
            }

            var length = 2 + BinaryPrimitives.ReadUInt16BigEndian(data[(i + 2)..]);
            if (length < 4 || i + length > data.Length)
            {
                return null;
            }

            if (marker is not ((>= 0xE1 and <= 0xED) or 0xEF or 0xFE))
            {
                kept.AddRange(data.Slice(i, length));
            }

            i += length;
        }

        return null;
    }

    /// <summary>The chunks that draw; text, time and Exif are left out (PNG, third edition, W3C 2025; from memory).</summary>
    private static byte[]? OfPng(ReadOnlySpan<byte> data)
    {
        if (!data.StartsWith(PngStart))
        {
            return null;
        }

        var kept = new List<byte>(PngStart);
        for (var i = PngStart.Length; i + 12 <= data.Length;)
        {
            var length = BinaryPrimitives.ReadUInt32BigEndian(data[i..]);
            if (length > data.Length - i - 12)
            {
                return null;
            }

            var type = Encoding.ASCII.GetString(data.Slice(i + 4, 4));
            if (PngKept.Contains(type))
            {
                kept.AddRange(data.Slice(i, (int)length + 12));
            }

            if (type == "IEND")
            {
                return [.. kept];
            }

            i += (int)length + 12;
        }

        return null;
    }
}
