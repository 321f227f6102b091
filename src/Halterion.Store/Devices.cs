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
public sealed record StoredDevice(Guid Id, string Name, DeviceRole Role, DateTimeOffset PairedAt, DateTimeOffset LastSeen);

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
        return [.. connection.Query("SELECT id, name, role, paired_at, last_seen FROM device ORDER BY paired_at, id", [], Read)];
    }

    public StoredDevice Add(string name, DeviceRole role, string tokenHash)
    {
        using var connection = database.Connect();
        var device = new StoredDevice(Guid.CreateVersion7(), name, role, clock.GetUtcNow(), clock.GetUtcNow());
        connection.Run(
            "INSERT INTO device (id, name, role, token_hash, paired_at, last_seen) VALUES (@id, @name, @role, @hash, @now, @now)",
            [("@id", device.Id), ("@name", name), ("@role", role.ToString()), ("@hash", tokenHash), ("@now", device.PairedAt)]);
        return device;
    }

    /// <summary>The device with this token, now seen; null: it was sent away, or never let in.</summary>
    public StoredDevice? Seen(string tokenHash)
    {
        using var connection = database.Connect();
        Forget(connection);
        var device = connection.Query("SELECT id, name, role, paired_at, last_seen FROM device WHERE token_hash = @hash",
            [("@hash", tokenHash)], Read).SingleOrDefault();
        if (device is not null && clock.GetUtcNow() - device.LastSeen > Noted)
        {
            connection.Run("UPDATE device SET last_seen = @now WHERE id = @id", [("@now", clock.GetUtcNow()), ("@id", device.Id)]);
        }

        return device;
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
        DateTimeOffset.Parse(r.GetString(4), CultureInfo.InvariantCulture));
}
