<script lang="ts">
    import { SETS } from '../../parts/offers';
    import type { Resources } from '../../api/client';
    import Choose from '../../parts/Choose.svelte';
    import FieldValue from '../../parts/FieldValue.svelte';
    import Floating from '../../parts/Floating.svelte';
    import { isChangeable } from '../../state/changeable';
    import type { Json } from '../../state/pointer';
    import BulkDialog from './BulkDialog.svelte';
    import type { Selection } from './selection.svelte';
    import { taken } from './taken';
    import { say } from '../../state/words';

    /* "Change…": one field of all chosen records. What it would come to is shown before it is done. */
    type Props = {
        type: Resources['TypeResource'];
        selection: Selection;
        count: number;
        search: string;
        condition: string | undefined;
        ondone: () => void;
    };
    let { type, selection, count, search, condition, ondone }: Props = $props();
    const fields = $derived(type.fields.filter(isChangeable));
    let anchor = $state<HTMLElement | null>(null);
    let field = $state.raw<Resources['FieldResource'] | null>(null);
    let asked = $state.raw<{ field: Resources['FieldResource']; value: Json; said: string } | null>(null);

    function choose(values: Json[]) {
        if (!field) return;
        const labels = values.map(
            (value) => field?.choices.find((choice) => choice.value === value)?.label ?? (value === true ? say('ticked') : String(value)),
        );
        asked = { field, value: taken(field, values), said: values.length ? labels.join(', ') : say('empty') };
        anchor = field = null;
    }
</script>

<button type="button" class="btn" onclick={(event) => (anchor = anchor ? null : event.currentTarget)}>Change…</button>

{#if anchor}
    <Floating {anchor} label="Change the chosen records" onclose={() => (anchor = field = null)}>
        {#if field}
            <FieldValue
                type={type.name}
                {field}
                many={SETS.includes(field.type)}
                chosen={[]}
                onchoose={choose}
                onclose={() => (anchor = field = null)}
            />
        {:else}
            <Choose
                title="Change"
                options={fields.map((one) => ({ key: one.name, label: one.label }))}
                onchoose={([key]) => (field = fields.find((one) => one.name === key) ?? null)}
                onclose={() => (anchor = null)}
            />
        {/if}
    </Floating>
{/if}
{#if asked}
    <BulkDialog
        {type}
        {count}
        title="{asked.field.label} becomes {asked.said}"
        asked={{
            recordType: type.name,
            values: { [asked.field.name]: asked.value },
            ...(selection.everything ? { filter: condition ?? null, search } : { records: selection.ids }),
        }}
        onclose={(isBegun) => {
            asked = null;
            if (isBegun) ondone();
        }}
    />
{/if}
