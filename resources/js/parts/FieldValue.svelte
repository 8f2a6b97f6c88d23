<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, type Resources } from '../api/client';
    import { findRecords } from '../api/records';
    import type { Json } from '../state/pointer';
    import Choose from './Choose.svelte';
    import { peopleOptions, teams } from './offers';
    import type { Option } from './options';
    import ValueInput from './ValueInput.svelte';
    import { say } from '../state/words';

    /* Gives a value, or several, for a field as a rule file writes it: people by handle, records by number. */
    type Props = {
        /** The record type whose values are counted; left out, nothing is counted. */
        type?: string;
        field: Resources['FieldResource'];
        many?: boolean;
        chosen: Json[];
        further?: Option[];
        /** A value that is typed comes first, and the other ways behind it. */
        typedFirst?: boolean;
        onchoose: (values: Json[]) => void;
        onfurther?: (key: string) => void;
        onclose: () => void;
    };
    let { type, field, many = false, chosen, further = [], typedFirst = false, onchoose, onfurther, onclose }: Props = $props();

    let typed = $state('');
    const records = createQuery(() => ({
        queryKey: ['offer', field.target, typed],
        enabled: field.type === 'reference',
        queryFn: () => findRecords(field.target ?? '', typed),
    }));
    const counts = createQuery(() => ({
        queryKey: ['counts', type, field.name],
        enabled: field.type === 'choice' && type !== undefined,
        queryFn: () => ask(api.GET('/api/records/{type}/counts/{field}', { params: { path: { type: type ?? '', field: field.name } } })),
    }));
    const options = $derived.by((): Option[] | null => {
        if (field.type === 'choice' || field.type === 'choices')
            return field.choices
                .filter((choice) => !choice.isRetired)
                .map((choice) => ({
                    key: choice.value,
                    label: choice.label,
                    tone: choice.tone ?? undefined,
                    hint: counts.data ? `${counts.data.find((count) => count.value === choice.value)?.count ?? 0} now` : undefined,
                }));
        if (field.type === 'person') return peopleOptions();
        // Teams are few and known, though a rule keeps their names as text.
        if (field.system && field.name === 'team') return teams().map((team) => ({ key: team, label: team }));
        if (field.type === 'reference')
            return (records.data ?? []).map((record) => ({ key: record.number, label: record.title, hint: record.number }));
        if (field.type === 'tick')
            return [
                { key: 'true', label: say('ticked') },
                { key: 'false', label: 'not ticked' },
            ];
        return null;
    });
    let writing = $state(false);
    let others = $state(false);

    function choose(keys: string[]) {
        const key = keys[0] ?? '';
        if (!many && further.some((option) => option.key === key)) onfurther?.(key);
        else if (!many && key === ':write') writing = true;
        else onchoose(field.type === 'tick' ? [key === 'true'] : keys);
    }
</script>

{#if options && !writing}
    <Choose
        title={field.label}
        options={[...options, ...further]}
        chosen={chosen.map(String)}
        {many}
        onsearch={field.type === 'reference' ? (text) => (typed = text) : undefined}
        onchoose={choose}
        {onclose}
    />
{:else if further.length && !writing && (!typedFirst || others)}
    <Choose title={field.label} options={[{ key: ':write', label: 'a value…' }, ...further]} chosen={[]} onchoose={choose} {onclose} />
{:else}
    <ValueInput
        {field}
        several={many}
        onother={further.length ? () => ((others = true), (writing = false)) : undefined}
        value={many ? chosen.join(', ') : String(chosen[0] ?? '')}
        ondone={(value) =>
            onchoose(
                many
                    ? value
                          .split(',')
                          .map((one) => one.trim())
                          .filter(Boolean)
                    : [value],
            )}
    />
{/if}
