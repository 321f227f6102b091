using System.Collections.Immutable;
using CsCheck;
using Halterion.Core.Sessions;

namespace Halterion.Core.Tests;

/// <summary>
/// Frames of the Bluetooth Heart Rate Measurement (Heart Rate Service 1.0, characteristic 0x2A37; layout from memory), and what is made of
/// them.
/// </summary>
public class HeartTests
{
    [Theory]
    [InlineData("00 48", 72, null, null)]
    [InlineData("06 48", 72, true, null)]
    [InlineData("04 48", 72, false, null)]
    [InlineData("01 2C 01", 300, null, null)]
    [InlineData("08 50 0A 00", 80, null, 10)]
    [InlineData("1E 50 0A 00 00 04 00 02", 80, true, 10)]
    public void Published_layouts_are_read(string hex, int beats, bool? contact, int? energy)
    {
        var frame = HeartFrame.Read(Bytes(hex))!;
        Assert.Equal((beats, contact, energy), (frame.Beats, frame.Contact, frame.EnergyKj));
        if (hex.StartsWith("1E", StringComparison.Ordinal))
        {
            // In steps of 1/1024 s.
            Assert.Equal([1.0, 0.5], frame.Intervals);
        }
    }

    [Theory]
    [InlineData("")]
    [InlineData("00")]
    [InlineData("01 48")]
    [InlineData("08 48 01")]
    [InlineData("10 48 00 04 00")]
    [InlineData("00 48 00")]
    public void Half_a_frame_is_none(string hex) => Assert.Null(HeartFrame.Read(Bytes(hex)));

    [Fact]
    public void What_is_written_is_read_again_and_no_bytes_break_it()
    {
        Gen.Select(Gen.Int[0, 400], Gen.Int[0, 2], Gen.Int[-1, 65535], Gen.Int[0, 65535].Array[0, 4]).Sample((beats, contact, energy, rr) =>
        {
            var frame = new HeartFrame(
                beats, contact == 2 ? null : contact == 1, energy < 0 ? null : energy, [.. rr.Select(r => r / 1024.0)]);
            var again = HeartFrame.Read(frame.Write())!;
            Assert.Equal((frame.Beats, frame.Contact, frame.EnergyKj), (again.Beats, again.Contact, again.EnergyKj));
            Assert.Equal(frame.Intervals, again.Intervals);
        });
        Gen.Byte.Array[0, 24].Sample(bytes => HeartFrame.Read(bytes));
    }

    [Fact]
    public void A_belt_counts_hard_time_and_says_what_is_wrong_with_it()
    {
        // Tanaka et al. 2001: 208 - 0.7 x 40 = 180; 85 % of it 153.
        Assert.Equal(180, Belt.Maximum(40));
        Belt After(Belt belt, int beats, long at, bool? contact = true) => belt.After(new HeartFrame(beats, contact, null, []), at, 180);
        var belt = Belt.New;
        Assert.Equal("no signal yet", belt.Trouble(0));
        for (var second = 1; second <= 70; second++)
        {
            belt = After(belt, second <= 10 ? 150 : 160, second * 1000);
        }

        // The first of the 60 frames above it only begins the time.
        Assert.Equal((160, 59.0, ""), (belt.Beats, belt.HardSeconds, belt.Trouble(70_500)));
        Assert.Equal("signal lost", belt.Trouble(76_000));
        Assert.Equal("no skin contact", After(belt, 0, 71_000, contact: false).Trouble(71_000));
        Assert.Equal(160, After(belt, 255, 71_000).Beats);

        // Two belts under one name, in turn: one of them is shown, and the doubt is said.
        var twins = belt;
        for (var i = 0; i < 6; i++)
        {
            twins = After(twins, 161, 71_000 + (i * 1000));
            twins = After(After(twins, 90, 71_300 + (i * 1000)), 90, 71_600 + (i * 1000));
        }

        Assert.Equal((161, "two straps with one name?"), (twins.Beats, twins.Trouble(76_700)));
        // A heart that really is elsewhere after a while is believed.
        Assert.Equal(95, Enumerable.Range(1, 6).Aggregate(belt, (b, i) => After(b, 95, 70_000 + (i * 1000))).Beats);
    }

    private static byte[] Bytes(string hex) =>
        [.. hex.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(h => Convert.ToByte(h, 16))];
}
