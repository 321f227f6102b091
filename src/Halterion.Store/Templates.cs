using System.Collections.Immutable;
using Halterion.Core.Plans;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>A block kept to begin from.</summary>
/// <param name="Block">A block of the plan language, as JSON.</param>
public sealed record StoredTemplate(Guid Id, string Name, string Block);

/// <summary>Blocks kept to begin from.</summary>
public sealed class Templates(Database database, TimeProvider clock)
{
    public ImmutableArray<StoredTemplate> List()
    {
        using var connection = database.Connect();
        return [.. connection.Query("SELECT id, name, block FROM template ORDER BY name COLLATE NOCASE, id", [], Read)];
    }

    public StoredTemplate Add(string name, string block)
    {
        var template = new StoredTemplate(Guid.CreateVersion7(), name, block);
        using var connection = database.Connect();
        connection.Run(
            "INSERT INTO template (id, name, block, created_at) VALUES (@id, @name, @block, @now)",
            [("@id", template.Id), ("@name", name), ("@block", block), ("@now", clock.GetUtcNow())]);
        return template;
    }

    public bool Remove(Guid id)
    {
        using var connection = database.Connect();
        return connection.Run("DELETE FROM template WHERE id = @id", [("@id", id)]) == 1;
    }

    private static StoredTemplate Read(SqliteDataReader r) => new(Guid.Parse(r.GetString(0)), r.GetString(1), r.GetString(2));
}
