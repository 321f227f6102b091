using System.Collections.Immutable;
using Halterion.Core.Plans;

namespace Halterion.Core.Sessions;

/// <summary>What was noted of people while a class was led.</summary>
/// <param name="Came">Who was ticked at the start, and whether they came; by the last tick.</param>
/// <param name="Words">By person, line by line.</param>
/// <param name="OfClass">Of nobody in particular.</param>
public sealed record LeadNotes(
    ImmutableDictionary<PersonId, bool> Came, ImmutableDictionary<PersonId, ImmutableArray<string>> Words, ImmutableArray<string> OfClass)
{
    /// <summary>Who took the easier option, and in which scene, in order.</summary>
    public ImmutableArray<(PersonId Who, int Scene)> Easier { get; init; } = [];

    /// <summary>Who told of pain, in which scene, and where it was in the words that were noted, in order.</summary>
    public ImmutableArray<(PersonId Who, int? Scene, string Where)> Pains { get; init; } = [];

    /// <param name="scene">What a scene is called.</param>
    public static LeadNotes Of(ImmutableArray<LeadCommand> commands, Func<int, string> scene)
    {
        var came = ImmutableDictionary.CreateBuilder<PersonId, bool>();
        var words = new Dictionary<PersonId, List<string>>();
        var all = ImmutableArray.CreateBuilder<string>();
        var easier = ImmutableArray.CreateBuilder<(PersonId, int)>();
        var pains = ImmutableArray.CreateBuilder<(PersonId, int?, string)>();
        foreach (var note in commands.Where(c => c.Kind == LeadCommandKind.Note).Select(c => c.Payload).OfType<LeadPayload>())
        {
            if (note is { Tap: QuickTap.Came or QuickTap.Away, Person: { } ticked })
            {
                came[new PersonId(ticked)] = note.Tap == QuickTap.Came;
                continue;
            }

            var line = Line(note, scene);
            if (line.Length == 0)
            {
                continue;
            }

            if (note is { Tap: QuickTap.Pain, Person: { } hurt })
            {
                pains.Add((new PersonId(hurt), note.Scene, note.Text ?? ""));
            }

            if (note is { Tap: QuickTap.Easier, Person: { } who, Scene: { } at })
            {
                easier.Add((new PersonId(who), at));
            }

            if (note.Person is { } person)
            {
                var id = new PersonId(person);
                (words.TryGetValue(id, out var lines) ? lines : words[id] = []).Add(line);
            }
            else
            {
                all.Add(line);
            }
        }

        return new LeadNotes(
            came.ToImmutable(), words.ToImmutableDictionary(w => w.Key, w => w.Value.ToImmutableArray()), all.ToImmutable())
        { Easier = easier.ToImmutable(), Pains = pains.ToImmutable() };
    }

    private static string Line(LeadPayload note, Func<int, string> scene)
    {
        var tap = note.Tap switch
        {
            QuickTap.Dropped => "put a weight down hard",
            QuickTap.Easier => "took the easier option",
            QuickTap.Pain => "pain",
            null or QuickTap.Came or QuickTap.Away => "",
        };
        var what = string.Join(": ", new[] { tap, note.Text ?? "" }.Where(w => w.Length > 0));
        return what.Length == 0 ? "" : note.Scene is { } at && scene(at) is { Length: > 0 } where ? $"{where}: {what}" : what;
    }
}
