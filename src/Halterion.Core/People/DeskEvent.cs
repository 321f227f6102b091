using System.Collections.Immutable;
using System.Security.Cryptography;
using System.Text;

namespace Halterion.Core.People;

/// <summary>How somebody stands on the booking desk's list.</summary>
public enum DeskStanding
{
    /// <summary>Has a place.</summary>
    Coming,

    /// <summary>They come if a place falls free.</summary>
    Waiting,

    /// <summary>They were booked and have cancelled.</summary>
    Gone,
}

/// <summary>Somebody on the list of the booking desk.</summary>
/// <param name="Key">The same for somebody in every file; it does not give their address away.</param>
public sealed record DeskGuest(string Key, string Name, DeskStanding Standing)
{
    /// <summary>Two who share a name are told apart by their address; where there is none, the name has to do.</summary>
    public static string KeyOf(string? address, string name)
    {
        var known = string.IsNullOrWhiteSpace(address) ? $"name:{NameOf(name).ToUpperInvariant()}" : address.Trim().ToUpperInvariant();
        return Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(known)))[..32];
    }

    /// <summary>A name without the spaces around and doubled within.</summary>
    public static string NameOf(string name) => string.Join(' ', name.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
}

/// <summary>What the booking desk says of one class.</summary>
/// <param name="Uid">The same for a class in every file.</param>
/// <param name="Sequence">A higher one is newer.</param>
/// <param name="Cancelled">The desk has cancelled the whole class.</param>
public sealed record DeskEvent(
    string Uid, int Sequence, string Title, DateTimeOffset Starts, bool Cancelled, ImmutableArray<DeskGuest> Guests)
{
    /// <summary>How many come; nobody to a class that is off.</summary>
    public int Coming => Cancelled ? 0 : Guests.Count(g => g.Standing == DeskStanding.Coming);
}

/// <summary>
/// Who is who on the desk's list: as answered, else by a name that one person of the roster alone has. Nobody is invented.
/// </summary>
public sealed class DeskNames(IEnumerable<Person> roster, IReadOnlyDictionary<string, PersonId?> answers)
{
    private readonly ILookup<string, PersonId> named = roster.ToLookup(
        p => DeskGuest.NameOf(p.Name), p => p.Id, StringComparer.OrdinalIgnoreCase);

    /// <summary>Null: not known, or said to be nobody of the roster.</summary>
    public PersonId? Of(DeskGuest guest) =>
        answers.TryGetValue(guest.Key, out var answered) ? answered
        : named[guest.Name].Take(2).ToArray() is [var only] ? only
        : null;

    /// <summary>It has to be asked who that is.</summary>
    public bool Asks(DeskGuest guest) => guest.Standing != DeskStanding.Gone && Of(guest) is null && !answers.ContainsKey(guest.Key);

    /// <summary>What the desk has said of one guest, in words.</summary>
    public DeskSaid Said(DeskEvent of) => DeskSaid.Of(of, Of);
}

/// <summary>What the desk says of people that are known, and how many more come.</summary>
public sealed record DeskSaid(ImmutableDictionary<PersonId, DeskStanding> Known, int Unknown)
{
    /// <summary>The desk has said nothing.</summary>
    public static readonly DeskSaid Nothing = new(ImmutableDictionary<PersonId, DeskStanding>.Empty, 0);

    /// <param name="who">Who a guest is; null: nobody known.</param>
    public static DeskSaid Of(DeskEvent of, Func<DeskGuest, PersonId?> who)
    {
        DeskStanding Standing(DeskGuest guest) => of.Cancelled ? DeskStanding.Gone : guest.Standing;
        // Who is on the list twice comes if one of the two does.
        return new DeskSaid(
            of.Guests.Where(g => who(g) is not null).GroupBy(g => who(g)!.Value).ToImmutableDictionary(g => g.Key, g => g.Min(Standing)),
            of.Guests.Count(g => who(g) is null && Standing(g) == DeskStanding.Coming));
    }

    internal bool Comes(PersonId person) => Known.TryGetValue(person, out var standing) && standing == DeskStanding.Coming;

    /// <summary>It says something else of somebody than before; one who came and is left out now has gone.</summary>
    internal bool IsNewOf(PersonId person, DeskSaid before) =>
        Known.TryGetValue(person, out var now) ? !before.Known.TryGetValue(person, out var was) || was != now : before.Comes(person);
}

/// <summary>Who is expected, and how many in all.</summary>
public sealed record Expectations(ImmutableArray<PersonId> People, int HeadCount)
{
    /// <summary>
    /// What the desk says anew, and nothing else: who was put in or taken out by hand stays so until the desk says something else of
    /// them than before. Those without a name here are counted.
    /// </summary>
    /// <param name="before">Null: the desk says something of this class for the first time; the number that the brief held was a guess
    /// then.</param>
    public Expectations Follow(DeskSaid? before, DeskSaid now)
    {
        var said = before ?? DeskSaid.Nothing;
        ImmutableArray<PersonId> people =
        [
            .. People.Where(p => !now.IsNewOf(p, said) || now.Comes(p)),
            .. now.Known.Keys.Where(
                p => now.Comes(p) && now.IsNewOf(p, said) && !People.Contains(p)).OrderBy(p => p.Value, StringComparer.Ordinal),
        ];
        var unnamed = before is null ? 0 : Math.Max(0, HeadCount - People.Length - before.Unknown);
        return new Expectations(people, people.Length + unnamed + now.Unknown);
    }
}
