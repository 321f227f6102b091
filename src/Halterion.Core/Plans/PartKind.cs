using System.Globalization;

namespace Halterion.Core.Plans;

/// <summary>
/// What the amount of a part counts. The set is closed: all that is asked of a kind is answered in this file, so that a new one is a new
/// line in each switch of it, and the compiler says where.
/// </summary>
public enum PartKind
{
    /// <summary>Seconds of work.</summary>
    Time,

    /// <summary>Seconds in which nothing moves.</summary>
    Hold,
    /// <summary>Reps, at the part's tempo.</summary>
    Reps,

    /// <summary>Small movements of a second each.</summary>
    Pulses,

    /// <summary>Until form slips, so many seconds at most.</summary>
    Open,

    /// <summary>Metres, at the part's pace.</summary>
    Distance,

    /// <summary>Seconds of rest inside a dose.</summary>
    Rest,
}

/// <summary>What a kind of part answers for itself: what it counts, how long it takes, how it is written and said.</summary>
public static class PartKinds
{
    extension(PartKind kind)
    {
        /// <summary>Something is done in it.</summary>
        public bool IsWork => kind is not PartKind.Rest;

        /// <summary>Its amount is seconds of work.</summary>
        public bool IsTimed => kind switch
        {
            PartKind.Time or PartKind.Hold or PartKind.Open => true,
            PartKind.Reps or PartKind.Pulses or PartKind.Distance or PartKind.Rest => false,
        };

        /// <summary>Its amount is counted, whatever time it takes.</summary>
        public bool IsCounted => kind switch
        {
            PartKind.Reps or PartKind.Pulses => true,
            PartKind.Time or PartKind.Hold or PartKind.Open or PartKind.Distance or PartKind.Rest => false,
        };

        /// <summary>Half of its time can go to each side.</summary>
        public bool CanSplit => kind switch
        {
            PartKind.Time or PartKind.Hold => true,
            PartKind.Reps or PartKind.Pulses or PartKind.Open or PartKind.Distance or PartKind.Rest => false,
        };

        /// <summary>It is moved in reps, whether they are counted or done for a time: of what has a tempo they can be estimated.</summary>
        public bool IsMovedInReps => kind switch
        {
            PartKind.Reps or PartKind.Time or PartKind.Open => true,
            PartKind.Hold or PartKind.Pulses or PartKind.Distance or PartKind.Rest => false,
        };

        /// <summary>What there is more or less of: "half the reps", "less time".</summary>
        public string Noun => kind switch
        {
            PartKind.Reps => "reps",
            PartKind.Pulses => "pulses",
            PartKind.Time or PartKind.Hold or PartKind.Open or PartKind.Distance or PartKind.Rest => "time",
        };

        /// <summary>What several stations of it are called together.</summary>
        public string Goes => kind is PartKind.Hold ? "all holds" : "all work intervals";

        /// <summary>An amount as it is said: it always says whether a number means reps or seconds.</summary>
        public string Said(Amount amount) => kind switch
        {
            PartKind.Reps => amount is { From: 1, To: 1 } ? "1 rep" : $"{amount} reps",
            PartKind.Time => $"{amount} s",
            PartKind.Hold => $"{amount} s hold",
            PartKind.Pulses => $"{amount} pulses",
            PartKind.Open => $"up to {amount} s",
            PartKind.Distance => $"{amount} m",
            PartKind.Rest => $"{amount} s rest",
        };

        /// <summary>Amounts in the trade's short form, which is typed.</summary>
        public string Short(string amounts) => kind switch
        {
            PartKind.Reps => amounts,
            PartKind.Time => $"{amounts} s",
            PartKind.Hold => $"{amounts} s hold",
            PartKind.Pulses => $"{amounts} pulses",
            PartKind.Open => $"max {amounts} s",
            PartKind.Distance => $"{amounts} m",
            PartKind.Rest => $"{amounts} s rest",
        };
    }

    extension(Part part)
    {
        /// <summary>Seconds that <paramref name="amount"/> of this part takes in one go, rounded up to a whole second.</summary>
        public int SecondsFor(int amount) => part.Kind switch
        {
            PartKind.Reps => (int)Math.Ceiling(amount * part.RepSeconds),
            PartKind.Distance => (int)Math.Ceiling(amount * part.Pace),
            PartKind.Time or PartKind.Hold or PartKind.Pulses or PartKind.Open or PartKind.Rest => amount,
        };

        /// <summary>How many reps an amount holds; of a timed part as many as its tempo has room for, else none.</summary>
        public int RepsIn(int amount) => part.Kind switch
        {
            PartKind.Reps => amount,
            PartKind.Time or PartKind.Open => part.Tempo is { } tempo ? (int)Math.Floor(amount / tempo.RepSeconds(RepStyle.Full)) : 0,
            PartKind.Hold or PartKind.Pulses or PartKind.Distance or PartKind.Rest => 0,
        };

        /// <summary>Where the seconds of an amount come from: "10 reps × 3 s".</summary>
        public string Reckoned(int amount) => part.Kind switch
        {
            PartKind.Reps => FormattableString.Invariant($"{amount} {(amount == 1 ? "rep" : "reps")} × {part.RepSeconds:0.##} s"),
            PartKind.Pulses => string.Create(CultureInfo.InvariantCulture, $"{amount} pulses × 1 s"),
            PartKind.Distance => FormattableString.Invariant($"{amount} m × {part.Pace:0.##} s a metre"),
            PartKind.Hold => "hold",
            PartKind.Open => string.Create(CultureInfo.InvariantCulture, $"until form slips, {amount} s at most"),
            PartKind.Time or PartKind.Rest => "timed",
        };
    }
}
