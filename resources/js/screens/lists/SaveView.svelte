<script lang="ts">
    import { Input, Radio } from 'flowbite-svelte';
    import { untrack } from 'svelte';
    import { api, ask, said, type Resources } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import type { Arrangement, View } from './arrangement.svelte';

    /* The name of a view, and who has it. */
    type Props = {
        type: Resources['TypeResource'];
        arrangement: Arrangement;
        view: View | null;
        onsaved: (view: View) => void;
        onclose: () => void;
    };
    let { type, arrangement, view, onsaved, onclose }: Props = $props();
    let name = $state(untrack(() => view?.name ?? ''));
    let shared = $state<View['shared']>(untrack(() => view?.shared ?? 'nobody'));
    let busy = $state(false);
    const team = $derived(session.people.find((person) => person.id === session.me?.id)?.team ?? '');

    async function save() {
        busy = true;
        // “Mine” becomes a condition of the view: whose it shows is not whoever looks.
        const definition = { ...arrangement.kept };
        const condition = arrangement.mine ? arrangement.condition() : undefined;
        if (condition) definition.filter = JSON.parse(condition) as typeof definition.filter;
        try {
            const body = { name: name.trim(), shared, definition };
            onsaved(
                view
                    ? await ask(api.PUT('/api/views/{id}', { params: { path: { id: view.id } }, body: { ...body, version: view.version } }))
                    : await ask(api.POST('/api/records/{type}/views', { params: { path: { type: type.name } }, body })),
            );
            toasts.tell(`The view “${body.name}” is saved.`);
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        busy = false;
    }
</script>

<Confirm
    title={view ? 'Change the view' : 'Save what you see as a view'}
    go="Save"
    {busy}
    onconfirm={() => name.trim() && save()}
    {onclose}
>
    <label class="block text-ink">Its name<Input maxlength={60} required bind:value={name} placeholder="Open, by due date" /></label>
    <fieldset class="space-y-1">
        <legend class="text-ink">Who has it</legend>
        <Radio name="shared" value="nobody" bind:group={shared}>only I</Radio>
        {#if team}<Radio name="shared" value="team" bind:group={shared}>everybody in {team}</Radio>{/if}
        {#if session.has('keep_house')}<Radio name="shared" value="everybody" bind:group={shared}>everybody</Radio>{/if}
    </fieldset>
</Confirm>
