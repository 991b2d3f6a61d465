using Pantomet.Imaging.Rendering;

namespace Pantomet.Server.Variants;

/// <summary>
/// The pixels that were rendered last, so that choosing another quality decodes nothing again. Holds a few renderings
/// only; one caller at a time works on each.
/// </summary>
internal sealed class PixelShelf : IDisposable
{
    private const int Most = 3;

    private readonly LinkedList<Entry> _entries = new();
    private readonly Lock _gate = new();

    public T Use<T>(string key, Func<RenderedPixels> render, Func<RenderedPixels, T> work)
    {
        var entry = Find(key);
        lock (entry)
        {
            // Evicted between finding and locking: render for this caller alone.
            if (entry.Gone)
            {
                using var own = render();
                return work(own);
            }

            entry.Pixels ??= render();
            return work(entry.Pixels);
        }
    }

    public void Dispose()
    {
        lock (_gate)
        {
            foreach (var entry in _entries)
            {
                entry.Remove();
            }

            _entries.Clear();
        }
    }

    private Entry Find(string key)
    {
        Entry? evicted = null;
        Entry entry;
        lock (_gate)
        {
            var node = _entries.First;
            while (node is not null && node.Value.Key != key)
            {
                node = node.Next;
            }

            entry = node?.Value ?? new(key);
            if (node is not null)
            {
                _entries.Remove(node);
            }

            _entries.AddFirst(entry);
            if (_entries.Count > Most)
            {
                evicted = _entries.Last!.Value;
                _entries.RemoveLast();
            }
        }

        evicted?.Remove();
        return entry;
    }

    private sealed class Entry(string key)
    {
        public string Key { get; } = key;

        public bool Gone { get; private set; }

        public RenderedPixels? Pixels { get; set; }

        public void Remove()
        {
            lock (this)
            {
                Gone = true;
                Pixels?.Dispose();
                Pixels = null;
            }
        }
    }
}
