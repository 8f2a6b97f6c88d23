<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import { longMoment } from '../../state/moments';
    import Area from '../../parts/fields/Area.svelte';

    /* The page that a letter leads to: the case, and two buttons. It is read on a phone as well, by whoever has the letter. */
    let { token }: { token: string } = $props();
    let comment = $state('');
    let answer = $state<'yes' | 'no' | null>(null);
    let busy = $state(false);
    let problem = $state('');
    let decided = $state.raw<Resources['DecisionPage'] | null>(null);
    const asked = createQuery(() => ({
        queryKey: ['decide', token],
        queryFn: () => ask(api.GET('/api/decide/{token}', { params: { path: { token } } })),
        retry: false,
        refetchOnWindowFocus: false,
    }));
    const page = $derived(decided ?? asked.data);

    async function decide() {
        if (!answer || (answer === 'no' && !comment.trim())) return;
        busy = true;
        problem = '';
        try {
            decided = await ask(api.POST('/api/decide/{token}', { params: { path: { token } }, body: { answer, comment } }));
        } catch (thrown) {
            problem = said(thrown);
        }
        busy = false;
    }
</script>

<main class="mx-auto h-full max-w-[560px] overflow-auto p-4 sm:pt-12">
    <div class="leaf solo h-auto!">
        <div class="p-6 sm:p-8">
            <div class="mb-5 flex items-center gap-3">
                <img src="/mark.svg" alt="" class="h-9 w-9 rounded-md border border-edge" />
                <span class="text-[13px] text-ink-2">Vivid Ledger</span>
            </div>
            {#if page}
                <h1 class="text-[24px]!">{page.isOpen ? 'Your sign-off is wanted' : page.said}</h1>
                <p class="mt-3 font-semibold">{page.record}</p>
                {#if page.why}<p class="mt-1">{page.why}</p>{/if}
                <p class="sub mt-2">
                    {page.asker ?? 'A rule'} asks {page.person}, by the rule “{page.rule}”.
                    {#if page.isOpen && page.dueAt}Until {longMoment(page.dueAt)}.{/if}
                </p>
                {#if page.changed.length}
                    <dl class="mt-4 border-t border-ruled">
                        {#each page.changed as one (one.label)}
                            <div class="grid grid-cols-[minmax(90px,2fr)_5fr] gap-2 border-b border-ruled py-1.5 text-[13.5px]">
                                <dt class="text-ink-2">{one.label}</dt>
                                <dd class="wrap-anywhere">
                                    {#if !page.isNew}<span class="text-ink-3">{one.before}</span> →
                                    {/if}<b>{one.after}</b>
                                </dd>
                            </div>
                        {/each}
                    </dl>
                {/if}
                {#if page.isOpen}
                    <div class="mt-5 grid grid-cols-2 gap-3" role="group" aria-label="Your answer">
                        <button
                            type="button"
                            class="btn py-3! {answer === 'yes' ? 'go' : ''}"
                            aria-pressed={answer === 'yes'}
                            onclick={() => (answer = 'yes')}>Agree</button
                        >
                        <button
                            type="button"
                            class="btn py-3! {answer === 'no' ? 'danger' : ''}"
                            aria-pressed={answer === 'no'}
                            onclick={() => (answer = 'no')}>Decline</button
                        >
                    </div>
                    {#if answer}
                        <label class="mt-4 block text-[12.5px] font-semibold" for="comment"
                            >{answer === 'no' ? 'Why not' : 'A comment, if you like'}</label
                        >
                        <Area id="comment" class="mt-1" rows={3} maxlength={2000} bind:value={comment} />
                        <button
                            type="button"
                            class="btn mt-3 w-full py-3! {answer === 'no' ? 'danger' : 'go'}"
                            disabled={busy || (answer === 'no' && !comment.trim())}
                            onclick={decide}>{busy ? 'Sending…' : answer === 'no' ? 'Decline it now' : 'Agree to it now'}</button
                        >
                    {/if}
                    {#if problem}<p class="note-wrong mt-2" role="alert">{problem}</p>{/if}
                {:else}
                    <p class="mt-4 text-[13.5px] text-ink-2">
                        You can close this page. <a class="link" href="/sign-offs">Open Vivid Ledger</a>
                    </p>
                {/if}
            {:else if asked.isError}
                <h1 class="text-[24px]!">Nothing can be decided here.</h1>
                <p class="mt-3">{said(asked.error)}</p>
                <p class="mt-3"><a class="link" href="/sign-offs">Open Vivid Ledger</a></p>
            {:else}
                <p class="sub">Reading…</p>
            {/if}
        </div>
    </div>
</main>
