<script lang="ts">
    import { Input } from 'flowbite-svelte';
    import { createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import { go, route } from '../../router';
    import { crumbs } from '../../state/crumbs.svelte';
    import { moment } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import Area from '../../parts/fields/Area.svelte';
    import { counted } from '../../state/words';
    import Tabs from '../../parts/Tabs.svelte';

    /* The mail room: a shelf of letters that the application sent, and the one that is taken down and read. */
    crumbs.set({ label: 'Mail room' });
    let search = $state('');
    const chosen = $derived(Number((route.params as { id?: string }).id ?? 0));
    let as = $state<'html' | 'text' | 'head'>('html');
    const VIEWS = [
        { key: 'html', label: 'As it reads' },
        { key: 'text', label: 'Plain text' },
        { key: 'head', label: 'Headers' },
    ];
    const shelf = createQuery(() => ({
        queryKey: ['mail-room', search],
        placeholderData: keepPreviousData,
        refetchInterval: 4000,
        queryFn: () => ask(api.GET('/api/mail-room', { params: { query: { search: search || undefined } } })),
    }));
    const letters = $derived(shelf.data?.letters ?? []);
    const id = $derived(chosen || letters[0]?.id || 0);
    const letter = createQuery(() => ({
        queryKey: ['mail-room', 'letter', id],
        enabled: id > 0,
        queryFn: () => ask(api.GET('/api/mail-room/{id}', { params: { path: { id } } })),
    }));
    const tones = ['iris', 'fern', 'marigold', 'harbor', 'madder'];
    /** The same sender or receiver always has the same colour on the shelf. */
    const tone = (text: string) => tones[[...text].reduce((sum, character) => sum + character.charCodeAt(0), 0) % tones.length];
    const who = (text: string) =>
        text
            .replace(/<[^>]*>/g, '')
            .replaceAll('"', '')
            .trim() || text;

    const way = (open: Resources['OpenLetter']) =>
        [
            open.sender && `From ${open.sender}`,
            `to ${open.recipients}`,
            open.cc && `copy to ${open.cc}`,
            open.replyTo && `answers to ${open.replyTo}`,
        ]
            .filter(Boolean)
            .join(' · ');

    function key(event: KeyboardEvent) {
        if (['INPUT', 'TEXTAREA', 'SELECT'].includes((event.target as HTMLElement).tagName)) return;
        const index = letters.findIndex((one) => one.id === id);
        const next = event.key === 'ArrowDown' ? letters[index + 1] : event.key === 'ArrowUp' ? letters[index - 1] : undefined;
        if (!next) return;
        event.preventDefault();
        go(`/mail-room/${next.id}`);
    }
    const client = useQueryClient();
    let answering = $state(false);
    let text = $state('');

    /** As the one who got the letter would: the answer arrives at the record it is about. */
    async function answer() {
        if (!letter.data) return;
        try {
            await ask(api.POST('/api/mail-room/{id}/answer', { params: { path: { id: letter.data.id } }, body: { text } }));
            text = '';
            answering = false;
            void client.invalidateQueries();
            toasts.tell('The answer has arrived at the record.');
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }
</script>

{#snippet asText(text: string)}
    <pre class="font-sans text-[14px] leading-relaxed whitespace-pre-wrap">{text}</pre>
{/snippet}

<svelte:window onkeydown={key} />

<div class="spread grid-cols-[minmax(0,440px)_minmax(0,1fr)]">
    <section class="leaf left">
        <header>
            <h1>Mail room</h1>
            <p class="sub">
                {shelf.data ? `${counted(shelf.data.total, ['# letter.', '# letters.'])} Nothing here has left the house.` : 'Looking…'}
            </p>
            <Input class="mt-3" type="search" placeholder="Search the letters" aria-label="Search the letters" bind:value={search} />
        </header>
        <div class="scroll bg-sunk px-5 py-4">
            {#each letters as one (one.id)}
                <a
                    class="envelope tone-edge-{tone(one.recipients)}"
                    class:on={one.id === id}
                    href="/mail-room/{one.id}"
                    data-letter={one.id}
                >
                    <span class="flex items-baseline gap-2">
                        <b class="min-w-0 flex-1 truncate">{who(one.recipients)}</b>
                        <span class="figures mini">{moment(one.at)}</span>
                    </span>
                    <span class="block truncate font-medium">{one.subject || (one.kind === 'sms' ? 'Text message' : 'No subject')}</span>
                    <span class="mini block truncate">{one.glimpse}</span>
                </a>
            {:else}
                {#if shelf.data}
                    <div class="empty">
                        <h2>{search ? 'No letter fits.' : 'No letters yet.'}</h2>
                        <p>{search ? 'Try fewer words.' : 'When a rule sends a message, it arrives here.'}</p>
                    </div>
                {/if}
            {/each}
        </div>
    </section>
    <section class="leaf right">
        {#if letter.data}
            <header class="flex items-start gap-3">
                <div class="min-w-0 flex-1">
                    <h2 class="title text-[21px]!">
                        {letter.data.subject || (letter.data.kind === 'sms' ? 'Text message' : 'No subject')}
                    </h2>
                    <p class="sub">
                        {way(letter.data)} · <span class="figures">{moment(letter.data.at)}</span>
                    </p>
                </div>
                {#if session.me?.mayEditRecords}<button type="button" class="btn" onclick={() => (answering = true)}>Answer…</button>{/if}
                <a class="btn" href="/api/mail-room/{letter.data.id}/eml" download>.eml</a>
            </header>
            {#if letter.data.kind === 'email'}
                {@const { headers, html, text: plain } = letter.data}
                <Tabs tabs={VIEWS} chosen={as} onchoose={(key) => (as = key as typeof as)} label="How it is shown" panel="scroll px-7 py-6">
                    {#snippet children(shown)}
                        {#if shown === 'head'}
                            <pre class="figures text-[11.5px] leading-6 whitespace-pre-wrap">{headers.join('\n')}</pre>
                        {:else if shown === 'text' || !html}
                            {@render asText(plain)}
                        {:else}
                            <!-- The server has sanitised it: nothing in it runs. -->
                            <article class="letter opened-letter">
                                {@html html}
                            </article>
                        {/if}
                    {/snippet}
                </Tabs>
            {:else}<div class="scroll px-7 py-6">{@render asText(letter.data.text)}</div>{/if}
        {:else}
            <div class="empty">{letter.isError ? said(letter.error) : letters.length ? 'Opening…' : ''}</div>
        {/if}
    </section>
</div>

{#if answering && letter.data}
    <Confirm title="Answer as {who(letter.data.recipients)}" go="Send the answer" onconfirm={answer} onclose={() => (answering = false)}>
        <p>Rules that wait for a reply take it as one.</p>
        <Area rows={4} aria-label="Answer" placeholder="What they write back" bind:value={text} />
    </Confirm>
{/if}
