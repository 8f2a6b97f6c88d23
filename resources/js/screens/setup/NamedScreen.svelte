<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, Refusal, said, type Shapes } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import FilterBar from '../../parts/FilterBar.svelte';
    import { crumbs } from '../../state/crumbs.svelte';
    import { counted } from '../../state/moments';
    import type { JsonObject } from '../../state/pointer';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';

    crumbs.set({ label: 'Setup', to: '/setup' }, { label: 'Named conditions' });
    const client = useQueryClient();
    const may = $derived(session.me?.mayEditRules ?? false);
    const named = createQuery(() => ({ queryKey: ['named'], queryFn: () => ask(api.GET('/api/named-conditions')) }));
    let editing = $state<{ id: number | null; version: number; name: string; type: string; file: JsonObject | null } | null>(null);
    let dropping = $state<Shapes['NamedShape'] | null>(null);
    let refusal = $state<Refusal | null>(null);

    function open(one: Shapes['NamedShape'] | null) {
        refusal = null;
        editing = one
            ? { id: one.id, version: one.version, name: one.name, type: one.recordType, file: one.file as JsonObject }
            : { id: null, version: 0, name: '', type: 'customer', file: null };
    }

    async function keep() {
        if (!editing) return;
        refusal = null;
        const { id, version, name, type } = editing;
        const file = editing.file ?? { kind: 'all', of: [] };
        try {
            if (id === null) await ask(api.POST('/api/named-conditions', { body: { recordType: type, name, file } }));
            else await ask(api.PUT('/api/named-conditions/{id}', { params: { path: { id } }, body: { version, name, file } }));
            await client.invalidateQueries({ queryKey: ['named'] });
            toasts.tell(`“${name}” is kept. Rules that use it mean this from now on.`);
            editing = null;
        } catch (thrown) {
            if (thrown instanceof Refusal) refusal = thrown;
            else toasts.complain(said(thrown));
        }
    }

    async function drop() {
        const one = dropping;
        dropping = null;
        try {
            await ask(api.DELETE('/api/named-conditions/{id}', { params: { path: { id: one?.id ?? 0 } } }));
            await client.invalidateQueries({ queryKey: ['named'] });
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }
</script>

<div class="spread">
    <section class="leaf solo">
        <header class="flex items-start gap-3">
            <div>
                <h1>Named conditions</h1>
                <p class="sub">An audience is described once, and rules say “it is one of ‘…’”.</p>
            </div>
            {#if may}<button type="button" class="btn go ml-auto" onclick={() => open(null)}>New</button>{/if}
        </header>
        <div class="scroll">
            {#if editing}
                <form
                    class="border-b border-ruled bg-[#f8f5ff] px-7 py-4"
                    onsubmit={(event) => {
                        event.preventDefault();
                        void keep();
                    }}
                >
                    <div class="mb-3 grid max-w-2xl grid-cols-[1fr_180px] gap-4">
                        <label class="text-[12.5px] text-ink-2"
                            >Name<input class="input" class:bad={refusal?.at('/name')} maxlength="60" bind:value={editing.name} /></label
                        >
                        <label class="text-[12.5px] text-ink-2"
                            >Of<select class="input" bind:value={editing.type} disabled={editing.id !== null}
                                >{#each session.schema?.types ?? [] as type (type.name)}<option value={type.name}>{type.plural}</option
                                    >{/each}</select
                            ></label
                        >
                    </div>
                    {#key `${editing.id}:${editing.type}`}
                        <FilterBar
                            type={editing.type}
                            filter={editing.file}
                            onchange={(file) => {
                                if (editing) editing.file = file;
                            }}
                        />
                    {/key}
                    {#if refusal}<p class="note-wrong" role="alert">{refusal.message}</p>{/if}
                    <div class="mt-3 flex gap-2">
                        <button class="btn go">Keep</button><button type="button" class="btn" onclick={() => (editing = null)}
                            >Cancel</button
                        >
                    </div>
                </form>
            {/if}
            {#each named.data ?? [] as one (one.id)}
                <div class="flex items-baseline gap-4 border-b border-ruled px-7 py-3">
                    <div class="min-w-0 flex-1">
                        <b class="font-semibold">{one.name}</b>
                        <span class="mini ml-2">{session.type(one.recordType).plural}</span>
                        <div class="text-[13px] text-ink-2">
                            {one.reading.aloud}
                        </div>
                        <div class="mini">{one.rules.length ? `used by ${one.rules.join(', ')}` : 'no rule uses it'}</div>
                    </div>
                    <span class="figures text-[12px] text-ink-2"
                        >{one.matching === null ? 'wants mending' : `${counted(one.matching, 'record')} now`}</span
                    >
                    {#if may}
                        <button type="button" class="btn" onclick={() => open(one)}>Change</button>
                        <button type="button" class="btn quiet" onclick={() => (dropping = one)}>Delete…</button>
                    {/if}
                </div>
            {:else}
                {#if named.data && !editing}<div class="empty">
                        <h2>No condition has a name yet.</h2>
                        <p>Describe a region, a team’s customers or any other audience once, and use it in every rule.</p>
                    </div>{/if}
            {/each}
        </div>
    </section>
</div>

{#if dropping}
    <Confirm title="Delete “{dropping.name}”?" go="Delete" danger onconfirm={drop} onclose={() => (dropping = null)}>
        <p>A condition that a rule uses cannot be deleted.</p>
    </Confirm>
{/if}
