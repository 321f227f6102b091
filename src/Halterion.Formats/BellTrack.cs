using System.Buffers.Binary;
using System.Collections.Immutable;
using System.Text;
using Halterion.Core;
using Halterion.Core.Leading;

namespace Halterion.Formats;

/// <summary>The bells and the count-in of a whole class as one WAV file (RIFF, PCM): 8 kHz, 8 bit, mono, 8 kB a second.</summary>
public static class BellTrack
{
    public const int Rate = 8000;
    private const int HeaderBytes = 44;
    private const byte Silence = 128;

    /// <summary>The bytes of the file for a length and its cues.</summary>
    public static long BytesOf(Seconds length) => HeaderBytes + Samples(length);

    /// <summary>Writes the file; two seconds are added so that the last bell rings out.</summary>
    public static async Task WriteAsync(Stream output, Seconds length, ImmutableArray<Cue> cues, CancellationToken cancel)
    {
        var samples = Samples(length);
        await output.WriteAsync(Header(samples), cancel);
        var ordered = cues.OrderBy(c => c.At).ToArray();
        var next = 0;
        var ringing = new List<(long Start, Bell Bell)>();
        var second = new byte[Rate];
        for (long at = 0; at < samples; at += Rate)
        {
            // A bell may start in this second and ring into the next ones.
            while (next < ordered.Length && ordered[next].At.Value * (long)Rate < at + Rate)
            {
                var bell = Bell.Of(ordered[next].Kind);
                for (var strike = 0; strike < bell.Strikes; strike++)
                {
                    ringing.Add((ordered[next].At.Value * (long)Rate + (long)(strike * bell.Apart * Rate), bell));
                }

                next++;
            }

            Fill(second, at, ringing);
            ringing.RemoveAll(r => r.Start + (long)(r.Bell.Length * Rate) < at + Rate);
            await output.WriteAsync(second.AsMemory(0, (int)Math.Min(Rate, samples - at)), cancel);
        }
    }

    private static long Samples(Seconds length) => (length.Value + 2) * (long)Rate;

    private static void Fill(byte[] second, long at, List<(long Start, Bell Bell)> ringing)
    {
        Array.Fill(second, Silence);
        foreach (var (start, bell) in ringing)
        {
            var end = start + (long)(bell.Length * Rate);
            for (var i = Math.Max(start, at); i < Math.Min(end, at + Rate); i++)
            {
                var time = (i - start) / (double)Rate;

                // A struck bell: full at once, then dying away.
                var loud = Math.Min(1, time * 200) * Math.Exp(-4 * time / bell.Length);
                var sum = second[i - at] + 90 * loud * Math.Sin(2 * Math.PI * bell.Pitch * time);
                second[i - at] = (byte)Math.Clamp(sum, 0, 255);
            }
        }
    }

    private static byte[] Header(long samples)
    {
        var header = new byte[HeaderBytes];
        var span = header.AsSpan();
        Encoding.ASCII.GetBytes("RIFF").CopyTo(span);
        BinaryPrimitives.WriteUInt32LittleEndian(span[4..], (uint)(36 + samples));
        Encoding.ASCII.GetBytes("WAVEfmt ").CopyTo(span[8..]);
        BinaryPrimitives.WriteUInt32LittleEndian(span[16..], 16);
        BinaryPrimitives.WriteUInt16LittleEndian(span[20..], 1);
        BinaryPrimitives.WriteUInt16LittleEndian(span[22..], 1);
        BinaryPrimitives.WriteUInt32LittleEndian(span[24..], Rate);
        BinaryPrimitives.WriteUInt32LittleEndian(span[28..], Rate);
        BinaryPrimitives.WriteUInt16LittleEndian(span[32..], 1);
        BinaryPrimitives.WriteUInt16LittleEndian(span[34..], 8);
        Encoding.ASCII.GetBytes("data").CopyTo(span[36..]);
        BinaryPrimitives.WriteUInt32LittleEndian(span[40..], (uint)samples);
        return header;
    }
}
