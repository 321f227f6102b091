using System.Collections.Immutable;

namespace Halterion.Core.Body;

/// <summary>A stretch of a rep in words, such as "lower".</summary>
public sealed record FilmPhase(string Word, double From, double To);

/// <summary>One rep at a tempo.</summary>
public sealed class Film
{
    /// <summary>How many frames a second has.</summary>
    public const int FramesPerSecond = 25;

    /// <summary>What is only held is shown for so long, seconds.</summary>
    public const double Held = 2;

    private readonly Motion motion;
    private readonly Course there;
    private readonly Course? back;

    /// <summary>The rep in phases: the way out, a stop, the way back, a stop.</summary>
    public ImmutableArray<FilmPhase> Phases { get; }

    /// <summary>How long a rep takes.</summary>
    public double Seconds => Phases[^1].To;

    /// <param name="lower">Seconds of each part of a tempo; lowering is the way out where the body goes down first.</param>
    /// <param name="stature">Of whom: a fall is one of metres.</param>
    public Film(Motion motion, double lower, double pause, double lift, double top, Stature? stature = null)
    {
        this.motion = motion;
        var order = Enumerable.Range(0, motion.Count).ToImmutableArray();
        var body = stature ?? Stature.Usual;
        if (motion.Way != Way.Back)
        {
            there = new Course(motion, motion.Way == Way.Round ? order.Add(0) : order, lower + pause + lift + top, body);
            Phases = [new FilmPhase("", 0, there.Seconds)];
            return;
        }

        var (outWord, backWord) = motion.Lowers ? ("lower", "lift") : ("lift", "lower");
        var (first, stay, second, end) = motion.Lowers ? (lower, pause, lift, top) : (lift, top, lower, pause);
        if (motion.Pose(motion.Count - 1).Air > 0)
        {
            // Nobody stays in the air.
            (stay, end) = (0, end + stay);
        }

        (there, back) = (new Course(motion, order, first, body), new Course(motion, [.. order.Reverse()], second, body));
        var at = 0.0;
        var phases = ImmutableArray.CreateBuilder<FilmPhase>();
        foreach (var (word, seconds) in new[] { (outWord, there.Seconds), ("hold", stay), (backWord, back.Seconds), ("hold", end) })
        {
            if (seconds > 0)
            {
                phases.Add(new FilmPhase(word, at, at + seconds));
                at += seconds;
            }
        }

        Phases = phases.ToImmutable();
    }

    /// <summary>The posture at a second of the rep.</summary>
    public Posture At(double second)
    {
        if (back is null)
        {
            return there.At(second);
        }

        var moved = 0;
        foreach (var phase in Phases)
        {
            var holds = phase.Word == "hold";
            if (second <= phase.To || phase == Phases[^1])
            {
                var into = Math.Max(0, second - phase.From);
                return holds ? motion.Key(moved == 1 ? motion.Count - 1 : 0) : moved == 0 ? there.At(into) : back.At(into);
            }

            moved += holds ? 0 : 1;
        }

        return motion.Key(0);
    }
}
