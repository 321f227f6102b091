using System.Collections.Immutable;
using Halterion.Core.Moves;

namespace Halterion.Store;

/// <summary>The user's own moves, as JSON; they are one document.</summary>
public sealed class OwnMoves(Database database)
{
    private const string Document = "own-moves";

    public ImmutableArray<string> List()
    {
        using var connection = database.Connect();
        return [.. connection.Query("SELECT move FROM own_move ORDER BY id", [], r => r.GetString(0))];
    }

    public int Revision()
    {
        using var connection = database.Connect();
        return Documents.RevisionOf(connection, Document);
    }

    /// <summary>Adds moves or changes those of the same id, all or none.</summary>
    public Saved Save(IEnumerable<(string Id, string Move)> moves, Basis basis) => database.Save(
        Document,
        basis,
        _ => true,
        c =>
        {
            foreach (var (id, move) in moves)
            {
                c.Run("INSERT INTO own_move (id, move) VALUES (@id, @move) ON CONFLICT (id) DO UPDATE SET move = excluded.move",
                    [("@id", id), ("@move", move)]);
            }
        });

    public bool Remove(string id)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        var removed = connection.Run("DELETE FROM own_move WHERE id = @id", [("@id", id)]) == 1;
        Documents.Bump(connection, Document);
        transaction.Commit();
        return removed;
    }
}
