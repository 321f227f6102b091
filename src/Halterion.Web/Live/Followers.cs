using System.Collections.Concurrent;
using System.Threading.Channels;
using Halterion.Store;

namespace Halterion.Web.Live;

/// <summary>
/// Who follows which session: each gets a sign when something changed there. What is led is read once a change, for all of them.
/// </summary>
public sealed class Followers(Leads leads)
{
    private readonly ConcurrentDictionary<Guid, ConcurrentDictionary<Channel<int>, byte>> followed = new();
    private readonly ConcurrentDictionary<Guid, Lazy<StoredLead?>> latest = new();

    /// <summary>A sign for every change; more than one that nobody has taken yet are one.</summary>
    public IDisposable Follow(Guid session, out ChannelReader<int> signs)
    {
        var channel = Channel.CreateBounded<int>(new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropOldest });
        followed.GetOrAdd(session, _ => new()).TryAdd(channel, 0);
        latest[session] = Read(session);
        signs = channel.Reader;
        return new Following(this, session, channel);
    }

    /// <summary>The open lead of a session that is followed, as it was after the last change.</summary>
    public StoredLead? LeadOf(Guid session) => latest.GetOrAdd(session, Read).Value;

    public void Changed(Guid session)
    {
        if (followed.GetValueOrDefault(session) is not { IsEmpty: false } channels)
        {
            return;
        }

        latest[session] = Read(session);
        foreach (var channel in channels.Keys)
        {
            channel.Writer.TryWrite(0);
        }
    }

    /// <summary>The data was put back: what was read from it before is no more.</summary>
    public void Forget() => latest.Clear();

    private Lazy<StoredLead?> Read(Guid session) => new(() => leads.OpenOf(session));

    private sealed class Following(Followers all, Guid session, Channel<int> channel) : IDisposable
    {
        public void Dispose()
        {
            if (all.followed.TryGetValue(session, out var channels))
            {
                channels.TryRemove(channel, out _);
                if (channels.IsEmpty)
                {
                    all.latest.TryRemove(session, out _);
                }
            }
        }
    }
}
