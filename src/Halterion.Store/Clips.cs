using System.Collections.Immutable;

namespace Halterion.Store;

/// <summary>Words that the instructor recorded once: kept with the data, so that they are in its copies and on every screen.</summary>
public sealed class Clips(Database database)
{
    public ImmutableArray<string> Words()
    {
        using var connection = database.Connect();
        return [.. connection.Query("SELECT word FROM clip ORDER BY word", [], r => r.GetString(0))];
    }

    public (string Type, byte[] Sound)? Find(string word)
    {
        using var connection = database.Connect();
        return connection.Query<(string, byte[])?>(
            "SELECT type, sound FROM clip WHERE word = @word", [("@word", word)], r => (r.GetString(0), r.GetFieldValue<byte[]>(1)))
            .SingleOrDefault();
    }

    /// <summary>More words than all that can be said. [M]</summary>
    public const int Most = 300;

    /// <returns>False: there are as many as there may be.</returns>
    public bool Keep(string word, string type, byte[] sound)
    {
        using var connection = database.Connect();
        return connection.Run(
            "INSERT INTO clip (word, type, sound) SELECT @word, @type, @sound WHERE (SELECT count(*) FROM clip WHERE word <> @word) < "
            + "@most ON CONFLICT (word) DO UPDATE SET type = excluded.type, sound = excluded.sound",
            [("@word", word), ("@type", type), ("@sound", sound), ("@most", Most)]) == 1;
    }

    public bool Remove(string word)
    {
        using var connection = database.Connect();
        return connection.Run("DELETE FROM clip WHERE word = @word", [("@word", word)]) == 1;
    }
}
