using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;
using Halterion.Core;
using Halterion.Core.Sessions;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>A class under way, or led: its script, kept for good, and the commands so far.</summary>
/// <param name="ClassVersion">The version of the class it was made from.</param>
/// <param name="Format">The version of the script's format.</param>
/// <param name="Script">The lead script as JSON.</param>
public sealed record StoredLead(Guid Id, Guid SessionId, int ClassVersion, int Format, string Script, ImmutableArray<LeadCommand> Commands);

/// <summary>What became of commands that were sent.</summary>
public enum Sending
{
    Taken,

    /// <summary>Others came in meanwhile that the sender does not know of.</summary>
    Behind,

    /// <summary>Another lead of the session, with commands of its own, took this one's place.</summary>
    Superseded,
}

/// <param name="Open">The lead that is open now, where it is another one.</param>
public sealed record Sent(Sending Sending, ImmutableArray<LeadCommand> Commands, Guid SessionId, StoredLead? Open = null);

/// <summary>Leads and their append-only commands. A session has at most one open lead.</summary>
public sealed class Leads(Database database, TimeProvider clock)
{
    /// <summary>
    /// The open lead of a session, in one transaction however many ask at once. One that was started stays, whatever became of
    /// the class; one that nobody started yet follows the latest version, and takes its notes along.
    /// </summary>
    /// <param name="make">Writes the script of the class at a version.</param>
    /// <returns>Null if there is no such session, or no script can be made of it.</returns>
    public StoredLead? Open(Guid sessionId, Func<StoredClass, (int Format, string Script)?> make)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        if (Sessions.Find(connection, sessionId) is not { } session)
        {
            return null;
        }

        var version = session.ClassVersion ?? Convert.ToInt32(
            connection.Scalar("SELECT max(version) FROM revision WHERE class_id = @id", [("@id", session.ClassId)]),
            CultureInfo.InvariantCulture);
        var open = OpenOf(connection, sessionId);
        if (open is not null && (HasStarted(open) || open.ClassVersion == version))
        {
            return open;
        }

        var plan = connection.Query(
            "SELECT saved_at, plan, title FROM revision WHERE class_id = @id AND version = @version",
            [("@id", session.ClassId), ("@version", version)],
            r => new StoredClass(session.ClassId, version, DateTimeOffset.Parse(r.GetString(0), CultureInfo.InvariantCulture),
                r.GetString(1), r.GetString(2))).Single();
        if (make(plan) is not { } made)
        {
            return null;
        }

        if (open is not null)
        {
            Supersede(connection, open.Id);
        }

        var lead = new StoredLead(Guid.CreateVersion7(), sessionId, version, made.Format, made.Script, []);
        connection.Run(
            "INSERT INTO lead (id, session_id, class_version, format, script, created_at) VALUES (@id, @session, @version, @format, "
            + "@script, @now)",
            [("@id", lead.Id), ("@session", sessionId), ("@version", version), ("@format", made.Format), ("@script", made.Script),
                ("@now", clock.GetUtcNow())]);
        if (open is { Commands.IsEmpty: false })
        {
            connection.Run("UPDATE lead_command SET lead_id = @new WHERE lead_id = @old", [("@new", lead.Id), ("@old", open.Id)]);
            connection.Run(
                "UPDATE lead_command SET kind = 'Lead', payload = NULL WHERE lead_id = @new AND kind = 'Adjust'", [("@new", lead.Id)]);
            lead = lead with { Commands = Commands(connection, lead.Id) };
        }

        transaction.Commit();
        return lead;
    }

    private static bool HasStarted(StoredLead lead) => lead.Commands.Any(c => c.Kind == LeadCommandKind.Start);

    /// <summary>The open lead of a session, if there is one.</summary>
    public StoredLead? OpenOf(Guid sessionId)
    {
        using var connection = database.Connect();
        return OpenOf(connection, sessionId);
    }

    /// <summary>The session that a lead belongs to.</summary>
    public Guid? SessionOf(Guid lead)
    {
        using var connection = database.Connect();
        return SessionOf(connection, lead);
    }

    /// <summary>What was noted of a person while classes were led, the first first.</summary>
    public ImmutableArray<(DateTimeOffset At, LeadPayload Note)> NotesOf(PersonId person)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                "SELECT tapped_at, payload FROM lead_command WHERE kind = 'Note' AND instr(payload, @person) > 0 ORDER BY tapped_at",
                [("@person", person.Value)],
                r => (DateTimeOffset.FromUnixTimeMilliseconds(r.GetInt64(0)), PayloadOf(r.GetString(1))!)),
        ];
    }

    /// <summary>Appends commands if none came from elsewhere since the sender last looked. Those stored already are passed over.</summary>
    /// <param name="expected">How many stored commands the sender knows of, its own unsent ones not counted.</param>
    /// <returns>Null if there is no such lead.</returns>
    public Sent? Append(Guid lead, int expected, IReadOnlyList<LeadCommand> commands)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        if (SessionOf(connection, lead) is not { } session)
        {
            return null;
        }

        var stored = Commands(connection, lead);
        var known = stored.Select(c => c.Id).ToHashSet();
        var fresh = commands.Where(c => known.Add(c.Id)).ToArray();
        if (fresh.Length == 0)
        {
            return new Sent(Sending.Taken, stored, session);
        }

        var open = OpenOf(connection, session);
        if (open is not null && open.Id != lead)
        {
            if (HasStarted(open) || !stored.AddRange(fresh).Any(c => c.Kind == LeadCommandKind.Start))
            {
                return new Sent(Sending.Superseded, stored, session, open);
            }

            // Nobody has started the other one: the one with commands wins.
            Supersede(connection, open.Id);
            connection.Run("UPDATE lead SET superseded_at = NULL WHERE id = @id", [("@id", lead)]);
        }

        var resent = commands.Count - fresh.Length;
        if (stored.Length - resent != expected)
        {
            return new Sent(Sending.Behind, stored, session);
        }

        for (var i = 0; i < fresh.Length; i++)
        {
            connection.Run(
                "INSERT INTO lead_command (lead_id, seq, id, kind, tapped_at, device, payload) VALUES (@lead, @seq, @id, @kind, @at, "
                + "@device, @payload)",
                [
                    ("@lead", lead), ("@seq", stored.Length + i), ("@id", fresh[i].Id), (
                        "@kind", fresh[i].Kind.ToString()), ("@at", fresh[i].At),
                    ("@device", fresh[i].Device ?? ""), (
                        "@payload", fresh[i].Payload is { } carried ? JsonSerializer.Serialize(carried, Payloads) : null),
                ]);
        }

        if (stored.AddRange(fresh).Any(c => c.Kind == LeadCommandKind.Start))
        {
            Sessions.Pin(
                connection,
                session,
                Convert.ToInt32(
                    connection.Scalar("SELECT class_version FROM lead WHERE id = @id", [("@id", lead)]), CultureInfo.InvariantCulture));
        }

        transaction.Commit();
        return new Sent(Sending.Taken, stored.AddRange(fresh), session);
    }

    private static Guid? SessionOf(SqliteConnection connection, Guid lead) =>
        connection.Scalar("SELECT session_id FROM lead WHERE id = @id", [("@id", lead)]) is string id ? Guid.Parse(id) : null;

    private static StoredLead? OpenOf(SqliteConnection connection, Guid sessionId) => connection.Query(
        "SELECT id, class_version, format, script FROM lead WHERE session_id = @session AND superseded_at IS NULL",
        [("@session", sessionId)],
        r => new StoredLead(Guid.Parse(r.GetString(0)), sessionId, r.GetInt32(1), r.GetInt32(2), r.GetString(3),
            Commands(connection, Guid.Parse(r.GetString(0))))).SingleOrDefault();

    private void Supersede(SqliteConnection connection, Guid lead) =>
        connection.Run("UPDATE lead SET superseded_at = @now WHERE id = @id", [("@now", clock.GetUtcNow()), ("@id", lead)]);

    private static ImmutableArray<LeadCommand> Commands(SqliteConnection connection, Guid lead) =>
    [
        .. connection.Query(
            "SELECT id, kind, tapped_at, device, payload FROM lead_command WHERE lead_id = @lead ORDER BY seq",
            [("@lead", lead)],
            r => new LeadCommand(Guid.Parse(r.GetString(0)), Enum.Parse<LeadCommandKind>(r.GetString(1)), r.GetInt64(2),
                r.GetString(3) is { Length: > 0 } device ? device : null, PayloadOf(r.Text(4)))),
    ];

    /// <summary>Kept for good: what a later version adds is passed over here, what is missing is null.</summary>
    private static LeadPayload? PayloadOf(string? json) => json is null ? null : JsonSerializer.Deserialize<LeadPayload>(json, Payloads);

    private static readonly JsonSerializerOptions Payloads = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };
}
