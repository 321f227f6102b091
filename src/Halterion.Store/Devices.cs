using System.Collections.Immutable;
using System.Globalization;

namespace Halterion.Store;

/// <summary>What a device of the local network may do.</summary>
public enum DeviceRole
{
    /// <summary>Sees the wall's screen and nothing else.</summary>
    Wall,

    /// <summary>Leads, and sees who needs what.</summary>
    Remote,
}

/// <summary>A device that was let in.</summary>
/// <param name="Session">The one whose lead it was paired from; null: none.</param>
public sealed record StoredDevice(
    Guid Id, string Name, DeviceRole Role, DateTimeOffset PairedAt, DateTimeOffset LastSeen, Guid? Session = null);

/// <summary>Devices that were let in, known by the hash of their token.</summary>
public sealed class Devices(Database database, TimeProvider clock)
{
    /// <summary>One that nobody used for so long is let in no more. [M]</summary>
    public static readonly TimeSpan Unused = TimeSpan.FromDays(90);

    /// <summary>When it was seen is noted no oftener than this.</summary>
    private static readonly TimeSpan Noted = TimeSpan.FromSeconds(20);

    public ImmutableArray<StoredDevice> List()
    {
        using var connection = database.Connect();
        Forget(connection);
        return [.. connection.Query("SELECT id, name, role, paired_at, last_seen, session_id FROM device ORDER BY paired_at, id", [],
            Read)];
    }

    /// <param name="session">The one whose lead it is paired from.</param>
    public StoredDevice Add(string name, DeviceRole role, string tokenHash, Guid? session = null)
    {
        using var connection = database.Connect();
        var taken = connection.Query("SELECT name FROM device", [], r => r.GetString(0));
        var called = name;
        for (var n = 2; taken.Contains(called, StringComparer.OrdinalIgnoreCase); n++)
        {
            called = string.Create(CultureInfo.InvariantCulture, $"{name} {n}");
        }

        var device = new StoredDevice(Guid.CreateVersion7(), called, role, clock.GetUtcNow(), clock.GetUtcNow(), session);
        connection.Run(
            "INSERT INTO device (id, name, role, token_hash, paired_at, last_seen, session_id) "
            + "VALUES (@id, @name, @role, @hash, @now, @now, @session)",
            [("@id", device.Id), ("@name", called), ("@role", role.ToString()), ("@hash", tokenHash), ("@now", device.PairedAt),
                ("@session", session)]);
        return device;
    }

    /// <summary>The device with this token, now seen; null: it was sent away, or never let in.</summary>
    public StoredDevice? Seen(string tokenHash)
    {
        using var connection = database.Connect();
        Forget(connection);
        var device = connection.Query("SELECT id, name, role, paired_at, last_seen, session_id FROM device WHERE token_hash = @hash",
            [("@hash", tokenHash)], Read).SingleOrDefault();
        if (device is not null && clock.GetUtcNow() - device.LastSeen > Noted)
        {
            connection.Run("UPDATE device SET last_seen = @now WHERE id = @id", [("@now", clock.GetUtcNow()), ("@id", device.Id)]);
        }

        return device;
    }

    /// <summary>The session whose lead a device was paired from; null: none.</summary>
    public Guid? SessionOf(Guid id)
    {
        using var connection = database.Connect();
        return connection.Scalar("SELECT session_id FROM device WHERE id = @id", [("@id", id)]) is string session
            ? Guid.Parse(session) : null;
    }

    public bool Remove(Guid id)
    {
        using var connection = database.Connect();
        return connection.Run("DELETE FROM device WHERE id = @id", [("@id", id)]) > 0;
    }

    private void Forget(Microsoft.Data.Sqlite.SqliteConnection connection) =>
        connection.Run("DELETE FROM device WHERE last_seen < @old", [("@old", clock.GetUtcNow() - Unused)]);

    private static StoredDevice Read(Microsoft.Data.Sqlite.SqliteDataReader r) => new(
        Guid.Parse(r.GetString(0)),
        r.GetString(1),
        Enum.Parse<DeviceRole>(r.GetString(2)),
        DateTimeOffset.Parse(r.GetString(3), CultureInfo.InvariantCulture),
        DateTimeOffset.Parse(r.GetString(4), CultureInfo.InvariantCulture),
        r.Text(5) is { } session ? Guid.Parse(session) : null);
}
