using System.Buffers.Binary;
using System.Collections.Immutable;

namespace Halterion.Core.Sessions;

/// <summary>
/// A heart-rate measurement as belts send it: Bluetooth SIG, Heart Rate Service 1.0, characteristic 0x2A37 (from memory): a byte of
/// flags, the rate in 8 or 16 bits, then energy and RR intervals where the flags say so; little endian.
/// </summary>
/// <param name="Beats">Beats a minute.</param>
/// <param name="Contact">Whether it lies on the skin; null: it cannot tell.</param>
/// <param name="EnergyKj">Kilojoules so far; null: not sent.</param>
/// <param name="Intervals">Seconds between beats, in steps of 1/1024.</param>
public sealed record HeartFrame(int Beats, bool? Contact, int? EnergyKj, ImmutableArray<double> Intervals)
{
    private const int Wide = 1;
    private const int InContact = 2;
    private const int TellsContact = 4;
    private const int Energy = 8;
    private const int Rr = 16;

    /// <summary>Null where it is no such frame: too short, or with half a value at its end.</summary>
    public static HeartFrame? Read(ReadOnlySpan<byte> bytes)
    {
        if (bytes.Length < 2)
        {
            return null;
        }

        var flags = bytes[0];
        var rest = bytes[1..];
        var width = (flags & Wide) == 0 ? 1 : 2;
        if (rest.Length < width)
        {
            return null;
        }

        var beats = width == 1 ? rest[0] : BinaryPrimitives.ReadUInt16LittleEndian(rest);
        rest = rest[width..];
        int? energy = null;
        if ((flags & Energy) != 0)
        {
            if (rest.Length < 2)
            {
                return null;
            }

            energy = BinaryPrimitives.ReadUInt16LittleEndian(rest);
            rest = rest[2..];
        }

        if ((flags & Rr) == 0 ? rest.Length > 0 : rest.Length % 2 != 0)
        {
            return null;
        }

        var intervals = ImmutableArray.CreateBuilder<double>(rest.Length / 2);
        for (; rest.Length > 0; rest = rest[2..])
        {
            intervals.Add(BinaryPrimitives.ReadUInt16LittleEndian(rest) / 1024.0);
        }

        return new HeartFrame(beats, (flags & TellsContact) == 0 ? null : (flags & InContact) != 0, energy, intervals.MoveToImmutable());
    }

    /// <summary>The same as a belt would send it.</summary>
    public byte[] Write()
    {
        var wide = Beats > 255;
        var flags = (wide ? Wide : 0) | (
            Contact is null ? 0 : TellsContact) | (Contact == true ? InContact : 0) | (EnergyKj is null ? 0 : Energy)
            | (Intervals.IsEmpty ? 0 : Rr);
        var bytes = new List<byte> { (byte)flags, (byte)Beats };
        void Two(int value) => bytes.AddRange([(byte)value, (byte)(value >> 8)]);
        if (wide)
        {
            bytes.Add((byte)(Beats >> 8));
        }

        if (EnergyKj is { } energy)
        {
            Two(energy);
        }

        foreach (var interval in Intervals)
        {
            Two((int)Math.Round(interval * 1024));
        }

        return [.. bytes];
    }
}

/// <summary>What a belt has told, frame by frame.</summary>
/// <param name="Beats">The last rate that can be; 0: none yet.</param>
/// <param name="At">When that was, in milliseconds since 1970.</param>
/// <param name="HardSeconds">Seconds above 85 % of the estimated maximum.</param>
/// <param name="Doubts">Frames in a row that do not go with the one before: another belt of the same name, or nonsense.</param>
public sealed record Belt(int Beats, long At, bool Contact, double HardSeconds, int Doubts)
{
    /// <summary>A belt that has sent nothing yet.</summary>
    public static readonly Belt New = new(0, 0, true, 0, 0);

    /// <summary>Above this share of the maximum it is hard.</summary>
    public const double Hard = 0.85;

    /// <summary>No living heart in a class beats slower or faster. [M]</summary>
    private const int Slowest = 30;
    private const int Fastest = 230;

    /// <summary>So many beats a minute a heart does not change within a second. [M]</summary>
    private const int Jump = 25;

    /// <summary>After so many frames that agree with each other a doubt is believed.</summary>
    private const int Believed = 4;

    /// <summary>Longer without a frame it is lost.</summary>
    public const long Lost = 5000;

    /// <summary>208 − 0.7 × age (Tanaka, Monahan and Seals, J Am Coll Cardiol 37, 2001; from memory).</summary>
    /// <param name="age">Years.</param>
    public static double Maximum(int age) => 208 - (0.7 * age);

    /// <summary>What is known of a belt after one frame more.</summary>
    public Belt After(HeartFrame frame, long at, double maximum)
    {
        if (frame.Beats is < Slowest or > Fastest || frame.Contact == false)
        {
            return this with { Contact = frame.Contact != false, Doubts = frame.Contact == false ? Doubts : Doubts + 1 };
        }

        var passed = (at - At) / 1000.0;
        if (Beats > 0 && passed < Lost / 1000.0 && Math.Abs(frame.Beats - Beats) > Jump * Math.Max(1, passed) && Doubts < Believed)
        {
            return this with { Doubts = Doubts + 1 };
        }

        var hard = Beats > 0 && passed is > 0 and <= Lost / 1000.0 && Beats > Hard * maximum ? passed : 0;
        return new Belt(frame.Beats, at, true, HardSeconds + hard, 0);
    }

    /// <summary>What is wrong with it at a moment; empty: nothing.</summary>
    public string Trouble(long now) =>
        Beats == 0 ? "no signal yet"
        : now - At > Lost ? "signal lost"
        : !Contact ? "no skin contact"
        : Doubts > 1 ? "two straps with one name?"
        : "";
}
