using System.Collections.Immutable;

namespace Halterion.Core.Body;

/// <summary>A stretch of a rep in words, such as "lower".</summary>
public sealed record FilmPhase(string Word, double From, double To);

/// <summary>One rep at a tempo, frame by frame.</summary>
public static class Film
{
    public const int FramesPerSecond = 25;

    /// <summary>What is only held is shown for so long, seconds.</summary>
    public const double Held = 2;

    /// <summary>Quicker than this no body goes from one key pose to the next, seconds. [M]</summary>
    private const double Shortest = 0.32;

    /// <summary>Off the floor or onto it again, or over to where the other foot was: it takes what falling takes.</summary>
    private const double ShortestFlight = 0.45;

    /// <summary>The rep in phases: the way out, a stop, the way back, a stop.</summary>
    /// <param name="lower">Seconds of each part of a tempo; lowering is the way out where the body goes down first.</param>
    public static ImmutableArray<FilmPhase> Phases(Motion motion, double lower, double pause, double lift, double top)
    {
        var steps = Math.Max(1, motion.Count - 1);
        var least = (motion.Flies || motion.Strides ? ShortestFlight : Shortest) * steps;
        if (motion.Way != Way.Back)
        {
            var whole = Math.Max(lower + pause + lift + top, Shortest * (motion.Way == Way.Round ? motion.Count : steps));
            return [new FilmPhase("", 0, whole)];
        }

        var (outWord, backWord) = motion.Lowers ? ("lower", "lift") : ("lift", "lower");
        var (first, stay, second, end) = motion.Lowers ? (lower, pause, lift, top) : (lift, top, lower, pause);
        (first, second) = (Math.Max(first, least), Math.Max(second, least));
        var at = 0.0;
        var phases = ImmutableArray.CreateBuilder<FilmPhase>();
        foreach (var (word, seconds) in new[] { (outWord, first), ("hold", stay), (backWord, second), ("hold", end) })
        {
            if (seconds > 0)
            {
                phases.Add(new FilmPhase(word, at, at + seconds));
                at += seconds;
            }
        }

        return phases.ToImmutable();
    }

    /// <summary>The posture at a second of the rep.</summary>
    public static Posture At(Motion motion, ImmutableArray<FilmPhase> phases, double second)
    {
        if (motion.Way != Way.Back)
        {
            var share = second / phases[^1].To;
            return motion.Way == Way.Round ? motion.Once(share) : motion.Out(share);
        }

        var moved = 0;
        foreach (var phase in phases)
        {
            var holds = phase.Word == "hold";
            if (second <= phase.To || phase == phases[^1])
            {
                var share = Math.Clamp((second - phase.From) / (phase.To - phase.From), 0, 1);
                return holds ? motion.Key(moved == 1 ? motion.Count - 1 : 0) : moved == 0 ? motion.Out(share) : motion.Back(share);
            }

            moved += holds ? 0 : 1;
        }

        return motion.Key(0);
    }
}
