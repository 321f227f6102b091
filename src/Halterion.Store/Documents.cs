using System.Globalization;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>What a change is made from.</summary>
/// <param name="Revision">The revision that its writer saw; 0: there was none.</param>
/// <param name="Change">The change's own id, the same when it is sent again.</param>
public sealed record Basis(int Revision, Guid? Change = null)
{
    /// <summary>Something that was not there.</summary>
    public static Basis None { get; } = new(0);
}

/// <summary>What became of a change.</summary>
/// <param name="Revision">As it now stands, or as it stood after this very change where it had arrived before; 0: there is no such
/// document.</param>
/// <param name="Done">Whether it was saved.</param>
public readonly record struct Saved(int Revision, bool Done);

/// <summary>Revisions of documents, and the changes that made them.</summary>
internal static class Documents
{
    /// <summary>So long a change that is sent again is recognised. [M]</summary>
    private static readonly TimeSpan Known = TimeSpan.FromDays(30);

    /// <summary>As SQL, with the document's name in an expression.</summary>
    public static string Revision(string document) => $"coalesce((SELECT revision FROM document_revision WHERE document = {document}), 1)";

    /// <summary>Saves a document in one transaction if nobody saved it since, once for each change.</summary>
    /// <param name="exists">Whether there is one already.</param>
    public static Saved Save(
        this Database database, string document, Basis basis, Func<SqliteConnection, bool> exists, Action<SqliteConnection> write)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        if (Seen(connection, document, basis) is { } before)
        {
            return before;
        }

        var now = exists(connection) ? RevisionOf(connection, document) : 0;
        if (now != basis.Revision)
        {
            return new Saved(now, false);
        }

        write(connection);
        var next = Bump(connection, document, now + 1);
        Note(database, connection, document, next, basis);
        transaction.Commit();
        return new Saved(next, true);
    }

    public static int RevisionOf(SqliteConnection connection, string document) =>
        Convert.ToInt32(connection.Scalar($"SELECT {Revision("@document")}", [("@document", document)]), CultureInfo.InvariantCulture);

    /// <summary>Counts a change of a document; the number it has then.</summary>
    public static int Bump(SqliteConnection connection, string document, int? to = null)
    {
        var next = to ?? (RevisionOf(connection, document) + 1);
        connection.Run(
            "INSERT INTO document_revision (document, revision) VALUES (@document, @next) ON CONFLICT (document) DO UPDATE SET revision "
            + "= excluded.revision",
            [("@document", document), ("@next", next)]);
        return next;
    }

    /// <summary>What became of this very change when it arrived before; null: it did not.</summary>
    public static Saved? Seen(SqliteConnection connection, string document, Basis basis) =>
        basis.Change is { } change && connection.Scalar(
            "SELECT revision FROM document_change WHERE id = @id AND document = @document", [
                ("@id", change), ("@document", document)]) is long revision
            ? new Saved((int)revision, true)
            : null;

    /// <summary>Notes that a change has arrived, in the transaction in which it is made.</summary>
    public static void Note(Database database, SqliteConnection connection, string document, int revision, Basis basis)
    {
        if (basis.Change is not { } change)
        {
            return;
        }

        var now = database.Clock.GetUtcNow();
        connection.Run("DELETE FROM document_change WHERE made_at < @old", [("@old", now - Known)]);
        connection.Run(
            "INSERT OR REPLACE INTO document_change (id, document, revision, made_at) VALUES (@id, @document, @revision, @now)",
            [("@id", change), ("@document", document), ("@revision", revision), ("@now", now)]);
    }

    /// <summary>A document that is gone: what is begun under its name counts anew.</summary>
    public static void Drop(SqliteConnection connection, string document)
    {
        connection.Run("DELETE FROM document_revision WHERE document = @document", [("@document", document)]);
        connection.Run("DELETE FROM document_change WHERE document = @document", [("@document", document)]);
    }
}
