using System.Collections.Immutable;
using Halterion.Core;
using Halterion.Core.People;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>A place in which a name stands.</summary>
/// <param name="Where">In words, such as "the title of a class".</param>
/// <param name="Text">The words around it.</param>
/// <param name="Whole">First and last name: it goes by itself. Else it is a name alone, which may be somebody else's.</param>
/// <param name="Link">The screen on which it stands; null: it stands on none.</param>
public sealed record NameTrace(string Where, string Text, bool Whole, string? Link = null);

/// <summary>Where the name of somebody stands, besides with themselves.</summary>
public sealed class Traces(Database database, People people)
{
    /// <summary>So many characters on either side are shown.</summary>
    private const int Shown = 40;

    /// <summary>So many places are listed.</summary>
    private const int Most = 200;

    private const string SessionOf = "(SELECT '/classes/' || s.class_id || '/on/' || s.id FROM session s WHERE s.id = t.session_id)";

    /// <summary>
    /// Every column of text that people write in: what it is, and the screen it stands on, from the row <c>t</c>. Others are found too, and
    /// have no screen.
    /// </summary>
    private static readonly Dictionary<(string, string), (string Where, string Link)> Known = new()
    {
        [("revision", "title")] = ("the title of a class", "'/classes/' || t.class_id || '/brief'"),
        [("revision", "plan")] = ("a class", "'/classes/' || t.class_id || '/build'"),
        [("person", "details")] = ("what is kept of somebody else", "'/people/' || t.id"),
        [("circle", "name")] = ("the name of a group", "'/people'"),
        [("room", "name")] = ("the name of a room", "'/rooms'"),
        [("room", "floor")] = ("the floor of a room", "'/rooms'"),
        [("room", "stock")] = ("a kit list", "'/rooms'"),
        [("template", "name")] = ("the name of a template", "'/settings'"),
        [("template", "block")] = ("a template", "'/settings'"),
        [("own_move", "move")] = ("a move of your own", "'/moves/' || t.id || '/edit'"),
        [("setting", "value")] = ("the settings", "'/settings'"),
        [("log", "note")] = ("the notes of a log", SessionOf + " || '/log'"),
        [("log_row", "note")] = ("a note about somebody else in a log", SessionOf + " || '/log'"),
        [("log", "details")] = ("what a log says of a class", SessionOf + " || '/log'"),
        [("log_row", "details")] = ("what a log says of somebody else", SessionOf + " || '/log'"),
        [("log_use", "details")] = ("what a log says of somebody else", SessionOf + " || '/log'"),
        [("log_use", "work")] = ("a class as it was logged", "NULL"),
        [("log_past", "log")] = ("a log before it was corrected", "NULL"),
        [("series", "series")] = ("a series", "'/weeks'"),
        [("session_pin", "reason")] = ("the reason of a choice", SessionOf + " || '/room'"),
        [("session_waiver", "reason")] = ("the reason of what is accepted", SessionOf + " || '/ready'"),
        [("session_tick", "tick")] = ("what is ticked off", SessionOf + " || '/ready'"),
        [("device", "name")] = ("the name of a device", "'/settings'"),
        [("desk_event", "title")] = ("a class of the booking desk", "'/people/desk'"),
        [("desk_guest", "name")] = ("a list of the booking desk", "'/people/desk'"),
        [("lead", "script")] = ("a class as it was led", "NULL"),
        [("lead_command", "payload")] = ("a note made while leading", "NULL"),
        [("clip", "word")] = ("a recorded word", "'/settings'"),
    };

    /// <summary>The names by which somebody is sought.</summary>
    /// <param name="alone">A name alone is taken out too; null: only where they have no other.</param>
    public NamesToErase NamesOf(Person person, bool? alone)
    {
        var whole = new NameSearch(person.Name);
        var another = people.List().Any(
            p => p.Id != person.Id && string.Equals(p.Name.Trim(), person.Name.Trim(), StringComparison.OrdinalIgnoreCase));
        var also = alone ?? !whole.IsWhole;
        return new NamesToErase(whole.IsWhole && !another ? whole : null, also ? Alone(person) : []);
    }

    /// <summary>Where they stand besides with themselves: by their whole name, and by a name alone.</summary>
    public ImmutableArray<NameTrace> Of(Person person)
    {
        using var connection = database.Connect();
        var whole = NamesOf(person, alone: false);
        var alone = new NamesToErase(null, Alone(person));
        var named = whole.Whole is null ? [] : Rows(connection, person, whole, isWhole: true).Concat(Files(whole, isWhole: true)).ToArray();
        return
        [
            .. named.Concat(Rows(connection, person, alone, isWhole: false).Concat(Files(alone, isWhole: false))
                .Where(
                    t => !(whole.Whole?.IsIn(t.Text) ?? false)
                        && !named.Any(n => n.Where == t.Where && n.Link == t.Link && n.Text == t.Text)))
                .DistinctBy(t => (t.Where, t.Link, t.Whole)).Take(Most),
        ];
    }

    /// <summary>What they are called, and the first and last of their names.</summary>
    private static ImmutableArray<NameSearch> Alone(Person person) =>
    [
        .. ((string?[])[person.Nick, .. person.Name.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)])
            .OfType<string>().Where(n => n.Length > 1).Distinct(StringComparer.OrdinalIgnoreCase).Select(n => new NameSearch(n)),
    ];

    private static IEnumerable<NameTrace> Rows(SqliteConnection connection, Person person, NamesToErase names, bool isWhole)
    {
        connection.CreateFunction("around", (string? text) => text is null ? null : Around(text, names));
        foreach (var (table, column) in Erasing.Texts(connection))
        {
            var (where, link) = Known.GetValueOrDefault((table, column), ($"{table}, {column}", "NULL"));
            var own = table == "person" ? "t.id <> @id" : table is "log_row" or "log_use" or "desk_guest" ? "t.person_id IS NOT @id"
                : "@id IS NOT NULL";
            var latest = table == "revision" ? "AND t.version = (SELECT max(version) FROM revision r WHERE r.class_id = t.class_id)" : "";
            foreach (var trace in connection.Query(
                $"SELECT text, link FROM (SELECT around(t.\"{column}\") AS text, {link} AS link FROM \"{table}\" t WHERE {own} {latest}) "
                + $"WHERE text IS NOT NULL LIMIT {Most}",
                [("@id", person.Id.Value)],
                r => new NameTrace(where, r.GetString(0), isWhole, r.Text(1))))
            {
                yield return trace;
            }
        }
    }

    private IEnumerable<NameTrace> Files(NamesToErase names, bool isWhole) =>
        from file in Erasing.Lists(DeskFolder.In(database.Folder))
        let text = Around(Erasing.Unfolded(file), names)
        where text is not null
        select new NameTrace($"a calendar file that was not read, {Path.GetFileName(file)}", text, isWhole, "/people/desk");

    private static string? Around(string text, NamesToErase names) =>
        names.Whole?.Around(text, Shown) ?? names.Also.Select(n => n.Around(text, Shown)).FirstOrDefault(t => t is not null);
}
