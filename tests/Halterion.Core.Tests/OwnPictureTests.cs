using System.Buffers.Binary;
using System.Text;
using Halterion.Core.Moves;

namespace Halterion.Core.Tests;

/// <summary>
/// A picture of one's own keeps nothing of where and with what it was taken (ITU-T T.81, annex B; PNG, W3C; from memory).
/// </summary>
public class OwnPictureTests
{
    private static byte[] Segment(byte marker, string text)
    {
        var body = Encoding.ASCII.GetBytes(text);
        return [0xFF, marker, (byte)((body.Length + 2) >> 8), (byte)(body.Length + 2), .. body];
    }

    private static byte[] JpegWith(params byte[][] segments) =>
        [
            0xFF,
            0xD8,
            .. Segment(0xE0, "JFIF\0\u0001"),
            .. segments.SelectMany(s => s),
            .. Segment(0xDB, "table"),
            .. Segment(0xDA, "scan"),
            1,
            2,
            0xFF,
            0,
            3,
            0xFF,
            0xD9];

    private static byte[] Chunk(string type, string text)
    {
        var length = new byte[4];
        BinaryPrimitives.WriteInt32BigEndian(length, text.Length);
        return [.. length, .. Encoding.ASCII.GetBytes(type), .. Encoding.ASCII.GetBytes(text), 9, 9, 9, 9];
    }

    private static byte[] PngWith(params byte[][] chunks) =>
        [
            0x89,
            0x50,
            0x4E,
            0x47,
            0x0D,
            0x0A,
            0x1A,
            0x0A,
            .. Chunk("IHDR", "head"),
            .. chunks.SelectMany(c => c),
            .. Chunk("IDAT", "picture"),
            .. Chunk("IEND", "")];

    private static byte[]? Cleaned(string kind, byte[] bytes)
    {
        var start = $"data:image/{kind};base64,";
        return OwnPicture.Clean(start + Convert.ToBase64String(bytes)) is { } clean
            ? Convert.FromBase64String(clean[start.Length..])
            : null;
    }

    [Fact]
    public void Place_time_and_camera_go_and_the_picture_stays()
    {
        Assert.Equal(JpegWith(), Cleaned("jpeg", JpegWith()));
        Assert.Equal(JpegWith(),
            Cleaned("jpeg", JpegWith(Segment(0xE1, "Exif GPS planted"), Segment(0xED, "IPTC planted"), Segment(0xFE, "planted"))));
        // What comes after the end of the picture is none of it.
        Assert.Equal(JpegWith(), Cleaned("jpeg", [.. JpegWith(), .. "planted"u8]));
        Assert.Equal(PngWith(), Cleaned("png", PngWith(Chunk("tEXt", "planted"), Chunk("eXIf", "planted"), Chunk("tIME", "planted"))));
        Assert.Equal(PngWith(), Cleaned("png", [.. PngWith(), .. "planted"u8]));
    }

    [Fact]
    public void What_is_no_picture_or_too_large_is_refused()
    {
        Assert.Null(Cleaned("jpeg", PngWith()));
        Assert.Null(Cleaned("png", JpegWith()));
        Assert.Null(Cleaned("gif", JpegWith()));
        Assert.Null(OwnPicture.Clean("https://example.invalid/a.jpg"));
        Assert.Null(OwnPicture.Clean("data:image/jpeg;base64,***"));
        Assert.Null(Cleaned("jpeg", JpegWith(Segment(0xE2, new string('x', 60_000)), Segment(0xE2, new string('x', 60_000)))));
        for (var cut = 0; cut < JpegWith().Length; cut++)
        {
            Assert.Null(Cleaned("jpeg", JpegWith()[..cut]));
        }

        for (var cut = 0; cut < PngWith().Length; cut++)
        {
            Assert.Null(Cleaned("png", PngWith()[..cut]));
        }
    }
}
