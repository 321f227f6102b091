using System.Globalization;
using System.Reflection;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>The data folder of one running server: its lock, its database, its schema.</summary>
public sealed class Database : IDisposable
{
    private const string FileName = "halterion.db";

    private readonly string connectionString;
    private readonly FileStream folderLock;

    private Database(string folder, FileStream folderLock)
    {
        this.folderLock = folderLock;
        connectionString = new SqliteConnectionStringBuilder
        {
            DataSource = Path.Combine(folder, FileName),
            ForeignKeys = true,
            DefaultTimeout = 10,
        }.ToString();
    }

    /// <summary>Opens a data folder, makes it if it is missing, and brings its schema up to date in one transaction.</summary>
    /// <exception cref="StoreException">It is not writable, in use by another server, or made by a newer version.</exception>
    public static Database Open(string folder)
    {
        FileStream? folderLock = null;
        try
        {
            MakeFolder(folder);
            folderLock = new FileStream(Path.Combine(folder, "lock"), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
            var database = new Database(folder, folderLock);
            database.Migrate();
            return database;
        }
        catch (Exception e) when (e is UnauthorizedAccessException or SqliteException or IOException)
        {
            var inUse = folderLock is null && File.Exists(Path.Combine(folder, "lock")) && e is IOException and not DirectoryNotFoundException;
            folderLock?.Dispose();
            throw new StoreException(
                inUse
                    ? $"The data folder {folder} is in use by another Halterion. Stop that one, or choose another folder with --data DIR."
                    : $"The data folder {folder} cannot be written ({e.Message.TrimEnd('.')}). Choose another one with --data DIR.",
                e);
        }
        catch (StoreException)
        {
            folderLock?.Dispose();
            throw;
        }
    }

    /// <summary>An open connection; writes happen in the default, immediate transaction.</summary>
    public SqliteConnection Connect()
    {
        var connection = new SqliteConnection(connectionString);
        connection.Open();
        return connection;
    }

    /// <summary>Whether the store can be written now.</summary>
    public bool CanWrite()
    {
        try
        {
            using var connection = Connect();
            using var transaction = connection.BeginTransaction();
            connection.Run("UPDATE class SET created_at = created_at WHERE id = ''", []);
            transaction.Rollback();
            return true;
        }
        catch (SqliteException)
        {
            return false;
        }
    }

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        folderLock.Dispose();
    }

    private static void MakeFolder(string folder)
    {
        if (OperatingSystem.IsWindows())
        {
            Directory.CreateDirectory(folder);
        }
        else
        {
            Directory.CreateDirectory(folder, UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
        }
    }

    private void Migrate()
    {
        using var connection = Connect();
        connection.Run("PRAGMA journal_mode = WAL", []);
        var scripts = Scripts();
        using var transaction = connection.BeginTransaction();
        var version = Convert.ToInt32(connection.Scalar("PRAGMA user_version", []), CultureInfo.InvariantCulture);
        if (version > scripts.Length)
        {
            throw new StoreException($"This data was written by a newer Halterion (schema {version}; this one knows {scripts.Length}). Use that version, or another folder with --data DIR.");
        }

        foreach (var script in scripts[version..])
        {
            connection.Run(script, []);
        }

        connection.Run(string.Create(CultureInfo.InvariantCulture, $"PRAGMA user_version = {scripts.Length}"), []);
        transaction.Commit();
    }

    /// <summary>The schema files in the order of their numbers.</summary>
    private static string[] Scripts()
    {
        var assembly = Assembly.GetExecutingAssembly();
        return [.. assembly.GetManifestResourceNames().Where(n => n.StartsWith("schema/", StringComparison.Ordinal)).Order(StringComparer.Ordinal).Select(name =>
        {
            using var reader = new StreamReader(assembly.GetManifestResourceStream(name)!);
            return reader.ReadToEnd();
        })];
    }
}
