<script lang="ts">
    import { untrack } from 'svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, Refusal, said, type Shapes } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import LetterFields from '../../parts/LetterFields.svelte';
    import { crumbs } from '../../state/crumbs.svelte';
    import { moment } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';

    crumbs.set({ label: 'Setup', to: '/setup' }, { label: 'Letters' });
    const client = useQueryClient();
    const may = $derived(session.me?.mayEditRules ?? false);
    const letters = createQuery(() => ({ queryKey: ['letters'], queryFn: () => ask(api.GET('/api/letters')) }));
    let chosen = $state<number | 'new' | null>(null);
    const letter = $derived<Shapes['LetterShape'] | undefined>(
        chosen === 'new' ? undefined : (letters.data?.find((one) => one.id === chosen) ?? letters.data?.[0]),
    );
    const versions = createQuery(() => ({
        queryKey: ['letter-versions', letter?.id, letter?.version],
        enabled: letter !== undefined,
        queryFn: () => ask(api.GET('/api/letters/{id}/versions', { params: { path: { id: letter?.id ?? 0 } } })),
    }));
    let name = $state('');
    let type = $state('ticket');
    let subject = $state('');
    let body = $state('');
    let refusal = $state<Refusal | null>(null);
    let dropping = $state(false);
    let opened = $state(0);
    $effect(() => {
        const now = letter;
        void chosen;
        untrack(() => {
            name = now?.name ?? '';
            type = now?.recordType ?? type;
            subject = now?.subject ?? '';
            body = now?.body ?? '';
            refusal = null;
            opened++;
        });
    });

    async function keep() {
        refusal = null;
        try {
            const kept = letter
                ? await ask(
                      api.PUT('/api/letters/{id}', {
                          params: { path: { id: letter.id } },
                          body: { version: letter.version, name, subject, body },
                      }),
                  )
                : await ask(api.POST('/api/letters', { body: { recordType: type, name, subject, body } }));
            await client.invalidateQueries({ queryKey: ['letters'] });
            chosen = kept.id;
            toasts.tell(`Version ${kept.version} of “${kept.name}” is kept.`);
        } catch (thrown) {
            if (thrown instanceof Refusal) refusal = thrown;
            else toasts.complain(said(thrown));
        }
    }

    async function drop() {
        dropping = false;
        try {
            await ask(api.DELETE('/api/letters/{id}', { params: { path: { id: letter?.id ?? 0 } } }));
            chosen = null;
            await client.invalidateQueries({ queryKey: ['letters'] });
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }
</script>

<div class="spread grid-cols-[minmax(0,340px)_minmax(0,1fr)]">
    <section class="leaf left">
        <header class="flex items-start gap-3">
            <div>
                <h1>Letters</h1>
                <p class="sub">Kept once; rules send the latest version.</p>
            </div>
            {#if may}<button type="button" class="btn go ml-auto" onclick={() => (chosen = 'new')}>New</button>{/if}
        </header>
        <div class="scroll">
            {#each letters.data ?? [] as one (one.id)}
                <button
                    type="button"
                    class="block w-full border-b border-ruled px-7 py-3 text-left hover:bg-[#faf6ec] {one.id === letter?.id
                        ? 'bg-[#f8f5ff]'
                        : ''}"
                    onclick={() => (chosen = one.id)}
                >
                    <b class="font-semibold">{one.name}</b>
                    <span class="mini block truncate"
                        >{session.type(one.recordType).plural} · version {one.version}{one.rules.length
                            ? ` · ${one.rules.join(', ')}`
                            : ' · no rule sends it'}</span
                    >
                </button>
            {:else}
                {#if letters.data}<div class="empty">
                        <h2>No letter yet.</h2>
                        <p>A letter is written once and sent by as many rules as you like.</p>
                    </div>{/if}
            {/each}
        </div>
    </section>
    <section class="leaf right">
        {#if letter || chosen === 'new' || letters.data?.length === 0}
            <div class="flex min-h-0 flex-1 flex-col px-7 py-5">
                <div class="grid grid-cols-[1fr_180px] gap-4">
                    <label class="text-[12.5px] text-ink-2"
                        >Name<input
                            class="input"
                            class:bad={refusal?.at('/name')}
                            maxlength="60"
                            bind:value={name}
                            disabled={!may}
                        /></label
                    >
                    <label class="text-[12.5px] text-ink-2"
                        >About<select class="input" bind:value={type} disabled={letter !== undefined || !may}
                            >{#each session.schema?.types ?? [] as one (one.name)}<option value={one.name}>{one.plural}</option
                                >{/each}</select
                        ></label
                    >
                </div>
                {#if refusal}<p class="note-wrong" role="alert">{refusal.message}</p>{/if}
                {#key `${opened}:${type}`}
                    <LetterFields
                        {type}
                        bind:subject
                        bind:body
                        problems={{ subject: refusal?.at('/subject'), body: refusal?.at('/body') }}
                    />
                {/key}
                <div class="mt-4 flex items-center gap-2">
                    {#if may}
                        <button type="button" class="btn go" onclick={keep}
                            >Keep {letter ? `version ${letter.version + 1}` : 'the letter'}</button
                        >
                        {#if letter}<button type="button" class="btn" onclick={() => (dropping = true)}>Delete…</button>{/if}
                    {/if}
                    <span class="mini ml-auto"
                        >{(versions.data ?? [])
                            .slice(0, 3)
                            .map((version) => `version ${version.number}: ${version.by}, ${moment(version.at)}`)
                            .join(' · ')}</span
                    >
                </div>
            </div>
        {/if}
    </section>
</div>

{#if dropping && letter}
    <Confirm title="Delete “{letter.name}”?" go="Delete" danger onconfirm={drop} onclose={() => (dropping = false)}>
        <p>What was sent stays on the accounts. A letter that a rule sends cannot be deleted.</p>
    </Confirm>
{/if}
