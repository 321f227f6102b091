using System.Collections.Concurrent;
using System.Threading.Channels;

namespace Halterion.Web.Live;

/// <summary>Who follows which session: each gets a sign when something changed there, and asks for what it needs.</summary>
public sealed class Followers
{
    private readonly ConcurrentDictionary<Guid, ConcurrentDictionary<Channel<int>, byte>> followed = new();

    /// <summary>A sign for every change; more than one that nobody has taken yet are one.</summary>
    public IDisposable Follow(Guid session, out ChannelReader<int> signs)
    {
        var channel = Channel.CreateBounded<int>(new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropOldest });
        followed.GetOrAdd(session, _ => new()).TryAdd(channel, 0);
        signs = channel.Reader;
        return new Following(this, session, channel);
    }

    public void Changed(Guid session)
    {
        foreach (var channel in followed.GetValueOrDefault(session)?.Keys ?? [])
        {
            channel.Writer.TryWrite(0);
        }
    }

    private sealed class Following(Followers all, Guid session, Channel<int> channel) : IDisposable
    {
        public void Dispose()
        {
            if (all.followed.TryGetValue(session, out var channels))
            {
                channels.TryRemove(channel, out _);
            }
        }
    }
}
