using System.Globalization;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;

namespace Halterion.Core.People;

/// <summary>A person in words that they can read themselves.</summary>
public static class PersonWords
{
    /// <summary>People by their names, in the order of these; one who is gone is "someone".</summary>
    public static string Listed(IEnumerable<PersonId> people, IReadOnlyDictionary<PersonId, string> names) =>
        string.Join(", ", people.Select(p => names.GetValueOrDefault(p, "someone")).Order(StringComparer.OrdinalIgnoreCase));

    /// <summary>Everything that is said of a person, a line each.</summary>
    public static IEnumerable<string> Lines(Person person, MoveLibrary moves)
    {
        yield return $"Name: {person.Name}";
        if (person.Nick is { } nick)
        {
            yield return $"Called in class: {nick}";
        }

        foreach (var (what, value, unit) in new[] { ("Height", (decimal?)person.StatureCm, "cm"), ("Weight", person.MassKg, "kg"),
            ("Year of birth", person.BirthYear, "") })
        {
            if (value is { } number)
            {
                yield return string.Create(CultureInfo.InvariantCulture, $"{what}: {number:0.##} {unit}").TrimEnd();
            }
        }

        foreach (var family in Person.Levelled)
        {
            yield return $"Usual option in {WordsOf<Family>.Of(family)} moves: {WordsOf<Plans.Tier>.Of(person.LevelFor(family))}";
        }

        foreach (var limit in person.Limits ?? [])
        {
            var until = limit.Until is { } day ? $", until {day:yyyy-MM-dd}" : "";
            yield return $"Care: {Allowance.Named(limit)}{until}{(limit.Note is { Length: > 0 } note ? $" – {note}" : "")}";
        }

        foreach (var tick in person.Ready ?? [])
        {
            yield return $"Signed off: {Allowance.Named(tick)}";
        }

        foreach (var (move, load) in person.Loads ?? System.Collections.Immutable.ImmutableSortedDictionary<string, RememberedLoad>.Empty)
        {
            yield return string.Create(CultureInfo.InvariantCulture,
                $"Usual load for {moves.Find(new MoveId(move))?.Name ?? move}: "
                    + $"{WordsOf<Plans.Implement>.Of(load.Implement)}, {load.Kg:0.##} kg in total");
        }

        foreach (var (what, cm) in new[] { ("Box", person.SetUp?.BoxCm), ("Bench", person.SetUp?.BenchCm),
                ("Rear-foot height", person.SetUp?.RearFootCm) })
        {
            if (cm is { } height)
            {
                yield return $"{what}: {height} cm";
            }
        }

        if (person.SetUp?.Band is { } band)
        {
            yield return $"Band: {WordsOf<Plans.BandStrength>.Of(band)}";
        }

        if (person.Note is { Length: > 0 } said)
        {
            yield return $"Note: {said}";
        }
    }
}
