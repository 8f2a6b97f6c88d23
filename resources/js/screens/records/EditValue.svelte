<script lang="ts">
    import { SETS } from '../../parts/offers';
    import { useQueryClient } from '@tanstack/svelte-query';
    import { untrack } from 'svelte';
    import type { Resources } from '../../api/client';
    import Choose from '../../parts/Choose.svelte';
    import FieldValue from '../../parts/FieldValue.svelte';
    import Floating from '../../parts/Floating.svelte';
    import { isChangeable } from '../../state/changeable';
    import type { Json } from '../../state/pointer';
    import { changeValue } from './changeValue';
    import { taken } from '../lists/taken';
    import { say } from '../../state/words';

    /* Changes one value of a record where it stands. Without a field, it asks first which. */
    type Field = Resources['FieldResource'];
    type Props = {
        type: Resources['TypeResource'];
        record: Resources['RecordResource'];
        field: Field | null;
        anchor: HTMLElement;
        onclose: () => void;
    };
    let { type, record: shown, field, anchor, onclose }: Props = $props();
    // Whoever chooses answers what stood there when they began, also where it is read again meanwhile.
    const record = untrack(() => shown);
    const client = useQueryClient();
    let chosen = $state.raw<Field | null>(untrack(() => field));
    const changeable = $derived(type.fields.filter(isChangeable));

    function now(one: Field): Json[] {
        const value = record.values[one.name];
        if (value === null || value === undefined) return [];
        if (one.type === 'person') return [record.handles[one.name] ?? ''] as Json[];
        return SETS.includes(one.type) ? String(value).split(',') : [value as Json];
    }

    async function change(values: Json[]) {
        // What is closed knows nothing any more.
        const [one, about] = [chosen, record];
        onclose();
        if (one) await changeValue(client, about, one, taken(one, values));
    }
</script>

<Floating {anchor} label="Change {record.number}" {onclose}>
    {#if chosen}
        <FieldValue
            type={type.name}
            field={chosen}
            many={SETS.includes(chosen.type)}
            chosen={now(chosen)}
            further={chosen.required || chosen.type === 'tick' || SETS.includes(chosen.type)
                ? []
                : [{ key: ':empty', label: say('empty'), group: 'Or' }]}
            typedFirst
            onchoose={change}
            onfurther={() => void change([''])}
            {onclose}
        />
    {:else}
        <Choose
            title="Change"
            options={changeable.map((one) => ({ key: one.name, label: one.label, hint: record.shown[one.name] }))}
            onchoose={([name]) => (chosen = changeable.find((one) => one.name === name) ?? null)}
            {onclose}
        />
    {/if}
</Floating>
