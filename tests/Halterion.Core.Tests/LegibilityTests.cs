using CsCheck;
using Halterion.Core.Leading;

namespace Halterion.Core.Tests;

/// <summary>What is read from afar, and what goes with a rep.</summary>
public class LegibilityTests
{
    /// <summary>
    /// The rule of thumb of ISO 9241-303 (from memory): at 22 minutes of arc a character is a 156th of the distance; at 8 m 51.2 mm.
    /// </summary>
    [Theory]
    [InlineData(8, 52)]
    [InlineData(2, 13)]
    [InlineData(15.6, 100)]
    public void A_digit_is_as_tall_as_the_distance_asks(double metres, int millimetres) =>
        Assert.Equal(millimetres, Legibility.Height(metres));

    [Fact]
    public void Every_distance_that_can_be_chosen_has_its_height()
    {
        Assert.Equal((2, 30, 57), (Legibility.Heights[0].Metres, Legibility.Heights[^1].Metres, Legibility.Heights.Length));
        Assert.All(Legibility.Heights, h => Assert.InRange(h.Metres * 1000 / h.Millimetres, 150, 156.3));
    }

    [Fact]
    public void The_beat_has_whole_beats_to_every_rep() => Gen.Double[0.4, 12].Sample(rep =>
    {
        var beat = ForEveryone.BeatFor(rep);
        Assert.InRange(beat, 60, 180);
        var beats = beat * rep / 60;
        Assert.InRange(Math.Abs(beats - Math.Round(beats)), 0, 0.001);
        // The next one up and the next one down are further from what is usual, or out of bounds.
        foreach (var other in new[] { 60 * (Math.Round(beats) + 1) / rep, 60 * (Math.Round(beats) - 1) / rep })
        {
            Assert.True(other is < 60 or > 180 || Math.Abs(other - 100) >= Math.Abs(beat - 100) - 0.001);
        }
    });
}
