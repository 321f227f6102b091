using System.Collections.Immutable;
using Halterion.Core.Leading;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>A class under way, or led: its script, kept for good, and the commands so far.</summary>
/// <param name="Version">The revision of the class it was made from.</param>
/// <param name="Script">A <see cref="LeadScript"/> as JSON.</param>
public sealed record StoredLead(Guid Id, Guid ClassId, int Version, string Script, ImmutableArray<LeadCommand> Commands);

/// <summary>Leads and their append-only commands.</summary>
public sealed class Leads(Database database, TimeProvider clock)
{
    public StoredLead Add(Guid classId, int version, string script)
    {
        var lead = new StoredLead(Guid.CreateVersion7(), classId, version, script, []);
        using var connection = database.Connect();
        connection.Run(
            "INSERT INTO lead (id, class_id, version, script, created_at) VALUES (@id, @class, @version, @script, @now)",
            [("@id", lead.Id), ("@class", classId), ("@version", version), ("@script", script), ("@now", clock.GetUtcNow())]);
        return lead;
    }

    /// <summary>The latest lead of a class.</summary>
    public StoredLead? Latest(Guid classId)
    {
        using var connection = database.Connect();
        return connection.Query(
            "SELECT id, class_id, version, script FROM lead WHERE class_id = @class ORDER BY created_at DESC, id DESC LIMIT 1",
            [("@class", classId)],
            r => new StoredLead(Guid.Parse(r.GetString(0)), Guid.Parse(r.GetString(1)), r.GetInt32(2), r.GetString(3), Commands(connection, Guid.Parse(r.GetString(0))))).SingleOrDefault();
    }

    /// <summary>Appends commands if none came from elsewhere since the sender last looked. Those stored already are passed over.</summary>
    /// <param name="expected">How many stored commands the sender knows of, its own unsent ones not counted.</param>
    /// <returns>All commands, and whether they were taken; null if there is no such lead.</returns>
    public (ImmutableArray<LeadCommand> Commands, bool Taken)? Append(Guid lead, int expected, IReadOnlyList<LeadCommand> commands)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        if (connection.Scalar("SELECT 1 FROM lead WHERE id = @id", [("@id", lead)]) is null)
        {
            return null;
        }

        var stored = Commands(connection, lead);
        var known = stored.Select(c => c.Id).ToHashSet();
        var fresh = commands.Where(c => known.Add(c.Id)).ToArray();
        var resent = commands.Count - fresh.Length;
        if (fresh.Length > 0 && stored.Length - resent != expected)
        {
            return (stored, false);
        }

        for (var i = 0; i < fresh.Length; i++)
        {
            connection.Run(
                "INSERT INTO lead_command (lead_id, seq, id, kind, tapped_at) VALUES (@lead, @seq, @id, @kind, @at)",
                [("@lead", lead), ("@seq", stored.Length + i), ("@id", fresh[i].Id), ("@kind", fresh[i].Kind.ToString()), ("@at", fresh[i].At)]);
        }

        transaction.Commit();
        return (stored.AddRange(fresh), true);
    }

    private static ImmutableArray<LeadCommand> Commands(SqliteConnection connection, Guid lead) =>
    [
        .. connection.Query(
            "SELECT id, kind, tapped_at FROM lead_command WHERE lead_id = @lead ORDER BY seq",
            [("@lead", lead)],
            r => new LeadCommand(Guid.Parse(r.GetString(0)), Enum.Parse<LeadCommandKind>(r.GetString(1)), r.GetInt64(2))),
    ];
}
