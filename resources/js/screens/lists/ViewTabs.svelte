<script lang="ts">
    import { useQueryClient } from '@tanstack/svelte-query';
    import { Dropdown, DropdownItem } from 'flowbite-svelte';
    import { api, ask, said, type Resources } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import type { Arrangement, View } from './arrangement.svelte';
    import SaveView from './SaveView.svelte';

    /* The views of a list: what everybody has, and those that were kept. */
    type Props = { type: Resources['TypeResource']; views: View[]; arrangement: Arrangement };
    let { type, views, arrangement }: Props = $props();
    const client = useQueryClient();
    let saving = $state<View | 'new' | null>(null);
    let removing = $state<View | null>(null);
    const view = $derived(arrangement.view);

    async function keep() {
        if (!view) return;
        try {
            await ask(
                api.PUT('/api/views/{id}', {
                    params: { path: { id: view.id } },
                    body: { version: view.version, name: view.name, shared: view.shared, definition: { ...arrangement.kept } },
                }),
            );
            await client.invalidateQueries({ queryKey: ['views', type.name] });
            arrangement.choose(views.find((one) => one.id === view.id) ?? view);
            toasts.tell(`“${view.name}” is saved as you see it.`);
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }

    async function remove() {
        const gone = removing;
        removing = null;
        if (!gone) return;
        try {
            await ask(api.DELETE('/api/views/{id}', { params: { path: { id: gone.id } } }));
            arrangement.choose(null);
            await client.invalidateQueries({ queryKey: ['views', type.name] });
            toasts.tell(`The view “${gone.name}” is removed.`);
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }
    const whose = (one: View) => (one.shared === 'nobody' ? '' : one.shared === 'team' ? 'for the team' : 'for everybody');
</script>

<div class="contents" role="tablist" aria-label="Views">
    <button type="button" role="tab" aria-selected={!view && !arrangement.mine} onclick={() => arrangement.choose(null)}>All</button>
    <button type="button" role="tab" aria-selected={!view && arrangement.mine} onclick={() => arrangement.choose(null, true)}>Mine</button>
    {#each views as one (one.id)}
        <button
            type="button"
            role="tab"
            aria-selected={view?.id === one.id}
            title={[one.name, whose(one), `by ${one.ownerName}`].filter(Boolean).join(', ')}
            class="max-w-48 truncate"
            onclick={() => arrangement.choose(one)}>{one.name}</button
        >
    {/each}
</div>
{#if view && arrangement.isChanged && view.mayChange}
    <button type="button" class="view-act" onclick={keep}>Save</button>
    <button type="button" class="view-act" onclick={() => arrangement.choose(view)}>As it was</button>
{/if}
{#if arrangement.isChanged || arrangement.mine}
    <button type="button" class="view-act" onclick={() => (saving = 'new')}>+ view</button>
{/if}
{#if view?.mayChange}
    <button type="button" class="view-act" aria-label="More about “{view.name}”">⋯</button>
    <Dropdown simple class="w-48 rounded-lg border border-edge bg-page shadow-lg">
        <DropdownItem onclick={() => (saving = view ?? null)}>Rename, share…</DropdownItem>
        <DropdownItem onclick={() => (removing = view ?? null)}>Remove…</DropdownItem>
    </Dropdown>
{/if}

{#if saving}
    <SaveView
        {type}
        {arrangement}
        view={saving === 'new' ? null : saving}
        onclose={() => (saving = null)}
        onsaved={async (kept) => {
            saving = null;
            await client.invalidateQueries({ queryKey: ['views', type.name] });
            arrangement.choose(kept);
        }}
    />
{/if}
{#if removing}
    <Confirm title="Remove the view “{removing.name}”?" go="Remove it" danger onconfirm={remove} onclose={() => (removing = null)}>
        <p>
            {removing.shared === 'nobody' ? 'The records stay as they are.' : 'Nobody will find it any more. The records stay as they are.'}
        </p>
    </Confirm>
{/if}
