<script lang="ts">
    import { Input, Select } from 'flowbite-svelte';
    import { untrack } from 'svelte';
    import { fromLocalField, toLocalField } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import type { Value } from './rehearsal.svelte';
    import DateField from '../../parts/fields/DateField.svelte';
    import { say } from '../../state/words';

    type Props = {
        title: string;
        type: string;
        values: Record<string, Value>;
        /** When it happens; left out where that is no question. */
        at?: string;
        /** Whether every field is shown, and not only those that are set. */
        whole?: boolean;
        onreset?: () => void;
        ondone: (values: Record<string, Value>, at?: string) => void;
    };
    let { title, type, values, at, whole = false, onreset, ondone }: Props = $props();
    const fields = $derived(session.type(type).fields.filter((field) => !field.system && !field.formula));
    let set = $state<Record<string, Value>>(untrack(() => ({ ...values })));
    let when = $state(untrack(() => (at ? toLocalField(at) : '')));
    let more = $state('');
    const shown = $derived(whole ? fields : fields.filter((field) => field.name in set));

    function put(name: string, raw: string) {
        const field = session.field(type, name);
        if (field?.type === 'tick') set[name] = raw === 'true';
        else if (field?.type === 'person' || field?.type === 'reference') set[name] = raw === '' ? null : Number(raw);
        else if (field?.type === 'date_time') set[name] = raw === '' ? null : fromLocalField(raw);
        else set[name] = raw === '' ? null : raw;
    }

    function shownValue(name: string): string {
        const value = set[name];
        if (value === null || value === undefined) return '';
        return session.field(type, name)?.type === 'date_time' ? toLocalField(String(value)) : String(value);
    }

    function add() {
        if (more) set[more] = session.field(type, more)?.type === 'tick' ? true : null;
        more = '';
    }

    function done(event: SubmitEvent) {
        event.preventDefault();
        ondone($state.snapshot(set) as Record<string, Value>, when ? fromLocalField(when) : undefined);
    }
</script>

<form class="w-[360px]" onsubmit={done}>
    <div class="border-b border-ruled px-4 py-2.5 text-[12.5px] font-semibold">{title}</div>
    <div class="max-h-[340px] space-y-2 overflow-auto px-4 py-3">
        {#if at !== undefined}
            <label class="grid grid-cols-[110px_1fr] items-center gap-2 text-[12.5px]"
                >When<DateField time label="When" bind:value={when} /></label
            >
        {/if}
        {#each shown as field (field.name)}
            <label class="grid grid-cols-[110px_1fr] items-center gap-2 text-[12.5px]"
                >{field.label}
                {#if field.type === 'choice'}
                    <Select placeholder="" value={shownValue(field.name)} onchange={(event) => put(field.name, event.currentTarget.value)}>
                        <option value="">empty</option>
                        {#each field.choices.filter((choice) => !choice.isRetired) as choice (choice.value)}<option value={choice.value}
                                >{choice.label}</option
                            >{/each}
                    </Select>
                {:else if field.type === 'tick'}
                    <Select
                        placeholder=""
                        value={String(set[field.name] ?? false)}
                        onchange={(event) => put(field.name, event.currentTarget.value)}
                    >
                        <option value="true">ticked</option><option value="false">not ticked</option>
                    </Select>
                {:else if field.type === 'person'}
                    <Select placeholder="" value={shownValue(field.name)} onchange={(event) => put(field.name, event.currentTarget.value)}>
                        <option value="">nobody</option>
                        {#each session.people as person (person.id)}<option value={String(person.id)}>{person.name}</option>{/each}
                    </Select>
                {:else if field.type === 'date' || field.type === 'date_time'}
                    <DateField
                        label={field.label}
                        time={field.type === 'date_time'}
                        value={shownValue(field.name)}
                        onchange={(next) => put(field.name, next)}
                    />
                {:else}
                    <Input
                        placeholder={field.type === 'reference' ? 'number of the record' : say('empty')}
                        value={shownValue(field.name)}
                        onchange={(event) => put(field.name, event.currentTarget.value)}
                    />
                {/if}
            </label>
        {:else}
            <p class="mini">No field is set.</p>
        {/each}
        {#if !whole}
            <Select placeholder="" aria-label="Another field" bind:value={more} onchange={add}>
                <option value="">+ another field</option>
                {#each fields.filter((field) => !(field.name in set)) as field (field.name)}<option value={field.name}>{field.label}</option
                    >{/each}
            </Select>
        {/if}
    </div>
    <div class="keys">
        <span><kbd>Enter</kbd>done</span><span><kbd>Esc</kbd>close</span>
        {#if onreset}<button type="button" class="link ml-auto" onclick={onreset}>As proposed</button>{/if}
        <button class="link {onreset ? '' : 'ml-auto'}">Done</button>
    </div>
</form>
