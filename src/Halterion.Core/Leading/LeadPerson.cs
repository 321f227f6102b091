using System.Collections.Immutable;
using Halterion.Core.Plans;
using Halterion.Core.Views;
using Halterion.Core.Words;

namespace Halterion.Core.Leading;

/// <summary>What somebody needs at a station, where it is not simply the main option.</summary>
/// <param name="Words">What is otherwise in the option.</param>
public sealed record PersonNeeds(PlaceId Station, CellKind Kind, string Words, string Why);

/// <summary>Somebody in the room, for whoever leads.</summary>
/// <param name="Initials">Two letters, or three where two are not enough.</param>
public sealed record LeadPerson(PersonId Id, string Called, string Initials, ImmutableArray<PersonNeeds> Needs)
{
    /// <summary>Who needs what, for the lead.</summary>
    public static ImmutableArray<LeadPerson> Of(RoomView room, ClassPlan plan, Preferences preferences)
    {
        string Words(RoomCell cell) => cell.Option is { } id && plan.Find(cell.Station)?.Station is { } station
            && station.Options.FirstOrDefault(o => o.Id == id) is { } option
                ? Differs.Named(option, station, plan.Moves, preferences)
                : cell.Words.Capital();
        var found = ImmutableArray.CreateBuilder<LeadPerson>(room.People.Length);
        foreach (var person in room.People)
        {
            var alike = room.People.Where(p => p.Id != person.Id).Select(p => Short(p.Called, 2)).ToHashSet(StringComparer.Ordinal);
            var initials = Short(person.Called, 2);
            found.Add(new LeadPerson(
                person.Id,
                person.Called,
                alike.Contains(initials) ? Short(person.Called, 3) : initials,
                [.. person.Cells.Where(c => c.Kind != CellKind.Main).Select(c => new PersonNeeds(c.Station, c.Kind, Words(c), c.Why))]));
        }

        return found.MoveToImmutable();
    }

    /// <summary>The first letters of the words of a name; of one word its first ones.</summary>
    private static string Short(string name, int many)
    {
        var words = name.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var letters = words.Length >= many ? string.Concat(words.Take(many).Select(w => w[0]))
            : string.Concat(words)[..Math.Min(many, string.Concat(words).Length)];
        return letters.ToUpperInvariant();
    }
}
