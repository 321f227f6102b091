using System.Globalization;
using System.Text;
using QRCoder;

namespace Halterion.Formats;

/// <summary>A QR code (ISO/IEC 18004) as one SVG path, with its quiet zone.</summary>
public static class QrPicture
{
    /// <returns>The path of the dark modules, and the side of the square in modules.</returns>
    public static (string Path, int Size) Of(string text)
    {
        using var data = QRCodeGenerator.GenerateQrCode(text, QRCodeGenerator.ECCLevel.M);
        var path = new StringBuilder();
        for (var y = 0; y < data.ModuleMatrix.Count; y++)
        {
            for (var x = 0; x < data.ModuleMatrix[y].Count; x++)
            {
                if (data.ModuleMatrix[y][x])
                {
                    path.Append(CultureInfo.InvariantCulture, $"M{x} {y}h1v1h-1z");
                }
            }
        }

        return (path.ToString(), data.ModuleMatrix.Count);
    }
}
