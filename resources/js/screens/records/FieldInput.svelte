<script lang="ts">
    import { Checkbox, Input, Select } from 'flowbite-svelte';
    import { createQuery } from '@tanstack/svelte-query';
    import type { Resources } from '../../api/client';
    import { findRecords } from '../../api/records';
    import Choose from '../../parts/Choose.svelte';
    import Floating from '../../parts/Floating.svelte';
    import { fromLocalField, toLocalField } from '../../state/moments';
    import { clock, session } from '../../state/session.svelte';
    import Area from '../../parts/fields/Area.svelte';
    import DateField from '../../parts/fields/DateField.svelte';
    import NumberField from '../../parts/fields/NumberField.svelte';
    import { NUMBERS } from '../../parts/offers';
    import { say } from '../../state/words';

    type Value = string | number | boolean | null | undefined;
    type Props = { field: Resources['FieldResource']; value: Value; shown: string; problem?: string };
    let { field, value = $bindable(), shown, problem }: Props = $props();

    const id = $derived(`field-${field.name}`);
    let choosing = $state<HTMLElement | null>(null);
    let typed = $state('');
    // svelte-ignore state_referenced_locally
    let label = $state(shown);
    const records = createQuery(() => ({
        queryKey: ['offer', field.target, typed],
        enabled: choosing !== null && field.type === 'reference',
        queryFn: () => findRecords(field.target ?? '', typed),
    }));
    const options = $derived(
        field.type === 'person'
            ? session.people
                  .filter((person) => person.active)
                  .map((person) => ({ key: String(person.id), label: person.name, hint: person.team }))
            : (records.data ?? []).map((record) => ({ key: String(record.id), label: record.title, hint: record.number })),
    );
    const clearable = $derived(
        field.required ? [] : [{ key: '', label: field.type === 'person' ? say('nobody') : say('empty'), group: 'Or' }],
    );

    function choose(key: string | undefined) {
        label = options.find((option) => option.key === key)?.label ?? '';
        value = key ? Number(key) : null;
        choosing = null;
        document.getElementById(id)?.focus();
    }

    const members = $derived(typeof value === 'string' && value !== '' ? value.split(',').map((member) => member.trim()) : []);

    /* A retired choice stays where it is, and is offered no more. */
    const offered = $derived(
        field.choices.filter((choice) => !choice.isRetired || choice.value === value || members.includes(choice.value)),
    );

    function toggle(member: string, on: boolean) {
        const next = on ? [...members, member] : members.filter((other) => other !== member);
        value = next.length ? next.join(',') : null;
    }

    const text = (next: unknown) => (value = next === '' || next === undefined || next === null ? null : String(next));
</script>

<div class="grid grid-cols-[138px_minmax(0,1fr)] items-start gap-x-2 border-b border-ruled py-1.5">
    <label class="pt-1 text-ink-2" for={id}
        >{field.label}{#if field.required}<span class="text-madder" title="has to be filled in">&nbsp;*</span>{/if}</label
    >
    <div>
        {#if field.type === 'tick'}
            <Checkbox {id} class="mt-2 h-4 w-4" checked={value === true} onchange={(event) => (value = event.currentTarget.checked)} />
        {:else if field.type === 'choice'}
            <Select
                placeholder=""
                {id}
                aria-invalid={problem ? true : undefined}
                value={value ?? ''}
                onchange={(event) => (value = event.currentTarget.value || null)}
            >
                {#if !field.required || !value}<option value="">–</option>{/if}
                {#each offered as choice (choice.value)}<option value={choice.value}>{choice.label}</option>{/each}
            </Select>
        {:else if field.type === 'choices'}
            <div {id} role="group" aria-label={field.label} class="flex flex-wrap gap-x-4 gap-y-1 py-1">
                {#each offered as choice (choice.value)}
                    <label class="flex items-center gap-1.5"
                        ><Checkbox
                            checked={members.includes(choice.value)}
                            onchange={(event) => toggle(choice.value, event.currentTarget.checked)}
                        />{choice.label}</label
                    >
                {/each}
            </div>
        {:else if field.type === 'tags'}
            <Input
                {id}
                aria-invalid={problem ? true : undefined}
                bind:value={() => String(value ?? '').replaceAll(/,(?! )/g, ', '), text}
                placeholder="words, parted by commas"
                autocomplete="off"
            />
        {:else if field.type === 'person' || field.type === 'reference'}
            <button
                {id}
                type="button"
                class="boxed text-left"
                class:bad={problem}
                aria-haspopup="dialog"
                onclick={(event) => (choosing = choosing ? null : event.currentTarget)}
            >
                {#if value}{label}{:else}<span class="text-ink-3">Choose…</span>{/if}
            </button>
        {:else if field.type === 'long_text'}
            <Area {id} class="h-20" aria-invalid={problem ? true : undefined} bind:value={() => String(value ?? ''), text} />
        {:else if field.type === 'date'}
            <DateField {id} label={field.label} invalid={Boolean(problem)} bind:value={() => String(value ?? ''), text} />
        {:else if field.type === 'date_time'}
            <span class="flex items-center gap-2"
                ><DateField
                    time
                    {id}
                    label={field.label}
                    invalid={Boolean(problem)}
                    bind:value={() => (value ? toLocalField(String(value)) : ''), (next) => (value = next ? fromLocalField(next) : null)}
                /><span class="mini">{clock.zone.split('/').pop()}</span></span
            >
        {:else}
            <span class="flex items-center gap-2">
                {#if NUMBERS.includes(field.type)}
                    <NumberField {id} aria-invalid={problem ? true : undefined} bind:value={() => String(value ?? ''), text} />
                {:else}
                    <Input {id} aria-invalid={problem ? true : undefined} bind:value={() => String(value ?? ''), text} autocomplete="off" />
                {/if}
                {#if field.type === 'percent'}<span class="mini">%</span>{:else if field.currency}<span class="mini">{field.currency}</span
                    >{/if}
            </span>
        {/if}
        {#if problem}<p class="note-wrong" role="alert">{problem}</p>{:else if field.help}<p class="mini mt-0.5">{field.help}</p>{/if}
    </div>
</div>

{#if choosing}
    <Floating anchor={choosing} label={field.label} onclose={() => (choosing = null)}>
        <Choose
            title={field.label}
            options={[...options, ...clearable]}
            chosen={value ? [String(value)] : []}
            onsearch={field.type === 'reference' ? (text) => (typed = text) : undefined}
            onchoose={([key]) => choose(key)}
            onclose={() => (choosing = null)}
        />
    </Floating>
{/if}
