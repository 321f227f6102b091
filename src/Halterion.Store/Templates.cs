using System.Collections.Immutable;
using Halterion.Core.Plans;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>A block kept to begin from.</summary>
/// <param name="Block">A block of the plan language, as JSON.</param>
/// <param name="Revision">Counts its changes.</param>
public sealed record StoredTemplate(Guid Id, string Name, string Block, int Revision);

/// <summary>Blocks kept to begin from.</summary>
public sealed class Templates(Database database, TimeProvider clock)
{
    private static readonly string Selected = $"SELECT id, name, block, {Documents.Revision("'template:' || id")} FROM template";

    public ImmutableArray<StoredTemplate> List()
    {
        using var connection = database.Connect();
        return [.. connection.Query($"{Selected} ORDER BY name COLLATE NOCASE, id", [], Read)];
    }

    public StoredTemplate? Find(Guid id)
    {
        using var connection = database.Connect();
        return connection.Query($"{Selected} WHERE id = @id", [("@id", id)], Read).SingleOrDefault();
    }

    /// <summary>Keeps a block, new or in place of what stood there.</summary>
    public Saved Keep(Guid id, string name, string block, Basis basis) => database.Save(
        $"template:{id}",
        basis,
        c => c.Scalar("SELECT 1 FROM template WHERE id = @id", [("@id", id)]) is not null,
        c => c.Run(
            """
            INSERT INTO template (id, name, block, created_at) VALUES (@id, @name, @block, @now)
            ON CONFLICT (id) DO UPDATE SET name = excluded.name, block = excluded.block
            """,
            [("@id", id), ("@name", name), ("@block", block), ("@now", clock.GetUtcNow())]));

    public bool Remove(Guid id)
    {
        using var connection = database.Connect();
        Documents.Drop(connection, $"template:{id}");
        return connection.Run("DELETE FROM template WHERE id = @id", [("@id", id)]) == 1;
    }

    private static StoredTemplate Read(SqliteDataReader r) =>
        new(Guid.Parse(r.GetString(0)), r.GetString(1), r.GetString(2), r.GetInt32(3));
}
