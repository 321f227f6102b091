using System.Collections.Immutable;
using Halterion.Core.Moves;

namespace Halterion.Store;

/// <summary>The user's own moves, as JSON.</summary>
public sealed class OwnMoves(Database database)
{
    public ImmutableArray<string> List()
    {
        using var connection = database.Connect();
        return [.. connection.Query("SELECT move FROM own_move ORDER BY id", [], r => r.GetString(0))];
    }

    /// <summary>Adds moves or changes those of the same id, all or none.</summary>
    public void Save(IEnumerable<(string Id, string Move)> moves)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        foreach (var (id, move) in moves)
        {
            connection.Run(
                "INSERT INTO own_move (id, move) VALUES (@id, @move) ON CONFLICT (id) DO UPDATE SET move = excluded.move",
                [("@id", id), ("@move", move)]);
        }

        transaction.Commit();
    }

    public bool Remove(string id)
    {
        using var connection = database.Connect();
        return connection.Run("DELETE FROM own_move WHERE id = @id", [("@id", id)]) == 1;
    }
}
