using System.Globalization;
using System.Reflection;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>The data folder of one running server: its lock, its database, its schema, its copies.</summary>
public sealed class Database : IDisposable
{
    internal const string FileName = "halterion.db";
    internal const UnixFileMode FolderMode = UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute;
    internal const UnixFileMode FileMode600 = UnixFileMode.UserRead | UnixFileMode.UserWrite;

    private readonly string connectionString;
    private readonly FileStream folderLock;

    private Database(string folder, FileStream folderLock)
    {
        this.folderLock = folderLock;
        Folder = folder;
        connectionString = ConnectionString(Path.Combine(folder, FileName), pooled: true);
    }

    public string Folder { get; }

    public Copies Copies => new(this);

    /// <summary>Opens a data folder, makes it if it is missing, sees whether its file is sound, and brings its schema up to date in one transaction.</summary>
    /// <exception cref="StoreException">It is not writable, in use by another server, damaged, or made by a newer version.</exception>
    public static Database Open(string folder, TimeProvider clock)
    {
        FileStream? folderLock = null;
        try
        {
            MakeFolder(folder);
            folderLock = Lock(folder);
            var database = new Database(folder, folderLock);
            database.Migrate(clock);
            Private(folder);
            return database;
        }
        catch (Exception e) when (e is UnauthorizedAccessException or SqliteException or IOException)
        {
            var inUse = folderLock is null && File.Exists(Path.Combine(folder, "lock")) && e is IOException and not DirectoryNotFoundException;
            SqliteConnection.ClearAllPools();
            folderLock?.Dispose();
            throw Trouble(folder, e, inUse);
        }
        catch (StoreException)
        {
            SqliteConnection.ClearAllPools();
            folderLock?.Dispose();
            throw;
        }
    }

    /// <summary>The names of the schema files, in the order in which they are run.</summary>
    public static int SchemaVersion => Scripts().Length;

    /// <summary>An open connection; writes happen in the default, immediate transaction. What is deleted is overwritten.</summary>
    public SqliteConnection Connect()
    {
        var connection = new SqliteConnection(connectionString);
        connection.Open();
        connection.Run("PRAGMA secure_delete = ON", []);
        return connection;
    }

    /// <summary>Writes a moment and reads it back.</summary>
    /// <exception cref="SqliteException">The store cannot be written or read.</exception>
    public bool Works(TimeProvider clock)
    {
        var now = Sql.Iso(clock.GetUtcNow());
        using var connection = Connect();
        connection.Run("INSERT INTO health (id, checked_at) VALUES (1, @now) ON CONFLICT (id) DO UPDATE SET checked_at = excluded.checked_at", [("@now", now)]);
        return (string?)connection.Scalar("SELECT checked_at FROM health WHERE id = 1", []) == now;
    }

    /// <summary>Takes what was deleted out of the file's free pages and out of the log beside it.</summary>
    public void Scrub()
    {
        using var connection = Connect();
        connection.Run("VACUUM", []);
        for (var tries = 0; tries < 50; tries++)
        {
            // A reader that is still under way keeps the log; readers here are short.
            if (connection.Scalar("PRAGMA wal_checkpoint(TRUNCATE)", []) is long and 0)
            {
                return;
            }

            Thread.Sleep(20);
        }
    }

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        folderLock.Dispose();
    }

    internal static string ConnectionString(string file, bool pooled) => new SqliteConnectionStringBuilder
    {
        DataSource = file,
        ForeignKeys = true,
        DefaultTimeout = 10,
        Pooling = pooled,
    }.ToString();

    /// <summary>The lock of a folder, held as long as the stream is open.</summary>
    /// <exception cref="IOException">Somebody else holds it.</exception>
    internal static FileStream Lock(string folder) =>
        new(Path.Combine(folder, "lock"), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);

    /// <summary>What SQLite itself thinks of a file: null if it is sound, else the first thing that is wrong.</summary>
    internal static string? Damage(SqliteConnection connection)
    {
        try
        {
            return connection.Scalar("PRAGMA quick_check(1)", []) is string and not "ok" and var wrong ? wrong : null;
        }
        catch (SqliteException e) when (e.SqliteErrorCode is 11 or 26)
        {
            return e.Message;
        }
    }

    /// <summary>Nobody else on this machine may read what is kept: 0700 for folders, 0600 for files, also for those that were there before.</summary>
    internal static void Private(string folder)
    {
        if (OperatingSystem.IsWindows())
        {
            return;
        }

        File.SetUnixFileMode(folder, FolderMode);
        foreach (var file in Directory.EnumerateFiles(folder))
        {
            File.SetUnixFileMode(file, FileMode600);
        }

        foreach (var inner in Directory.EnumerateDirectories(folder))
        {
            Private(inner);
        }
    }

    /// <summary>Makes a folder that nobody else on this machine may look into.</summary>
    public static void MakeFolder(string folder)
    {
        if (OperatingSystem.IsWindows())
        {
            Directory.CreateDirectory(folder);
        }
        else
        {
            Directory.CreateDirectory(folder, FolderMode);
        }
    }

    private static StoreException Trouble(string folder, Exception e, bool inUse)
    {
        var damaged = e is SqliteException { SqliteErrorCode: 11 or 26 };
        return new StoreException(
            inUse ? $"The data folder {folder} is in use by another Halterion. Stop that one, or choose another folder with --data DIR."
            : damaged ? DamagedWords(folder, e.Message)
            : $"The data folder {folder} cannot be written ({e.Message.TrimEnd('.')}). Choose another one with --data DIR.",
            e)
        { IsDamage = damaged };
    }

    private static string DamagedWords(string folder, string why)
    {
        var newest = Copies.In(folder).FirstOrDefault(Copies.IsSound);
        return $"The data file in {folder} is damaged ({why.TrimEnd('.')}). Nothing has been changed in it. "
            + (newest is null ? "There is no sound copy of it." : $"The newest sound copy is {newest}: stop this, then ./halterion restore {newest}");
    }

    private void Migrate(TimeProvider clock)
    {
        using var connection = Connect();
        if (Damage(connection) is { } wrong)
        {
            throw new StoreException(DamagedWords(Folder, wrong)) { IsDamage = true };
        }

        connection.Run("PRAGMA journal_mode = WAL", []);
        var scripts = Scripts();
        var version = Convert.ToInt32(connection.Scalar("PRAGMA user_version", []), CultureInfo.InvariantCulture);
        if (version > scripts.Length)
        {
            throw new StoreException($"This data was written by a newer Halterion (schema {version}; this one knows {scripts.Length}). Use that version, or another folder with --data DIR.");
        }

        if (version == scripts.Length)
        {
            return;
        }

        if (version > 0)
        {
            Copies.BeforeSchema(version, clock);
        }

        // Tables that are rebuilt must not take with them what refers to them; the check before the end sees that all still fits.
        connection.Run("PRAGMA foreign_keys = OFF", []);
        using (var transaction = connection.BeginTransaction())
        {
            foreach (var script in scripts[version..])
            {
                connection.Run(script, []);
            }

            if (connection.Scalar("PRAGMA foreign_key_check", []) is not null)
            {
                throw new StoreException($"The data could not be brought to this version: parts of it do not fit together. It is as it was; a copy is in {Copies.FolderOf(Folder)}.");
            }

            connection.Run(string.Create(CultureInfo.InvariantCulture, $"PRAGMA user_version = {scripts.Length}"), []);
            transaction.Commit();
        }

        connection.Run("PRAGMA foreign_keys = ON", []);
        if (version > 0)
        {
            Scrub();
        }
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
