using System.Collections.Immutable;

namespace Halterion.Core.Logbook;

/// <summary>
/// What could perhaps be lifted once, estimated from a set of 1 to 12 reps: Epley 1985, w(1 + r/30), and Brzycki, J Phys Educ Rec
/// Dance 64(1), 1993, 36w/(37 − r); both from memory. An estimate: nobody need try it.
/// </summary>
/// <param name="Kg">Of all that was held.</param>
/// <param name="Epley">Kilograms.</param>
/// <param name="Brzycki">Kilograms.</param>
public sealed record BestSet(int Reps, decimal Kg, decimal Epley, decimal Brzycki)
{
    /// <summary>Of more reps the formulas say nothing.</summary>
    public const int MostReps = 12;

    /// <summary>Of one set; null where the formulas do not hold for it.</summary>
    public static BestSet? Of(int reps, decimal kg) => reps is < 1 or > MostReps || kg <= 0 ? null
        : new BestSet(reps, kg, Math.Round(kg * (1 + reps / 30m), 1), Math.Round(36 * kg / (37 - reps), 1));

    /// <summary>The best of some sets, by the mean of both; null: none can be judged.</summary>
    public static BestSet? Of(IEnumerable<DoneSet> sets) => sets
        .Select(s => s is { Reps: { } reps, Kg: { } kg } ? Of(reps, kg) : null).OfType<BestSet>()
        .MaxBy(b => b.Epley + b.Brzycki);
}
