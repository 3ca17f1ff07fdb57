{title: Low Tide}
{composer: Ada Quill}
{copyright: 2020 Ada Quill, all rights reserved}
{time: 3/4}
{key: D}
{tempo: 92}
[D]Walk along the [G]sand, the [A7]tide is far a[D]way,
[Bm]Nothing in my [Em]hand, and [A7]nothing left to [D]say.
