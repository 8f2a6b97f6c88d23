<script lang="ts">
    import What from '../../parts/What.svelte';
    import { Checkbox, Input, Select } from 'flowbite-svelte';
    import { api, ask, Refusal, said, type Resources } from '../../api/client';
    import { createQuery } from '@tanstack/svelte-query';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import NumberField from '../../parts/fields/NumberField.svelte';
    import ChoiceRows from './ChoiceRows.svelte';
    import ScorePoints from './ScorePoints.svelte';
    import { asGiven, KINDS, type ChoiceGiven } from './fields';
    import { within, say } from '../../state/words';

    /* A field of a record type: a new one, or one that there is. */
    let {
        type,
        field,
        ondone,
        onretire,
    }: {
        type: Resources['TypeResource'];
        field: Resources['FieldResource'] | null;
        ondone: (name: string) => void;
        onretire: () => void;
    } = $props();
    // svelte-ignore state_referenced_locally
    const start = field;
    let label = $state(start?.label ?? '');
    let kind = $state(start?.type ?? 'text');
    let required = $state(start?.required ?? false);
    let help = $state(start?.help ?? '');
    let target = $state(start?.target ?? session.schema?.types[0]?.name ?? '');
    let currency = $state(start?.currency ?? 'EUR');
    let min = $state(start?.min ?? '');
    let max = $state(start?.max ?? '');
    let section = $state(start?.section ?? '');
    let begins = $state(typeof start?.default === 'boolean' ? String(start.default) : (start?.default ?? ''));
    let unique = $state(start?.unique ?? false);
    let requiredAt = $state<string[]>(start?.requiredAt ?? []);
    let onDelete = $state(start?.onDelete ?? 'keep');
    let numbering = $state(start?.numbering ?? '');
    let formula = $state(start?.formula ?? '');
    let scored = $state('');
    const ON_DELETE = {
        keep: 'it keeps the reference',
        refuse: 'the other one cannot be deleted',
        clear: 'it refers to nothing any more',
        along: 'it is deleted as well',
    };
    // svelte-ignore state_referenced_locally
    const stage = type.fields.find((one) => one.name === type.stage);
    const sections = $derived([...new Set(type.fields.map((one) => one.section).filter(Boolean))]);
    const isGiven = $derived(!formula.trim() && !numbering.trim());
    const canBegin = $derived(isGiven && !['date', 'date_time', 'person', 'reference'].includes(kind));
    const canBeUnique = $derived(isGiven && !['long_text', 'tick', 'choices', 'tags'].includes(kind));
    const uses = createQuery(() => ({
        queryKey: ['uses', type.name, start?.name, type.version],
        enabled: start !== null,
        queryFn: () =>
            ask(api.GET('/api/types/{type}/fields/{field}/uses', { params: { path: { type: type.name, field: start?.name ?? '' } } })),
    }));
    let choices = $state<ChoiceGiven[]>(
        start?.choices.map((choice) => ({ ...choice, tone: choice.tone ?? '' })) ?? [
            { label: '', tone: '', closes: false, isRetired: false },
        ],
    );
    let refusal = $state.raw<Refusal | null>(null);
    let busy = $state(false);
    const isNumber = $derived(['number', 'money', 'percent'].includes(kind));
    const hasChoices = $derived(kind === 'choice' || kind === 'choices');
    const problem = (at: string) => refusal?.at(at);

    async function keep(event: SubmitEvent) {
        event.preventDefault();
        busy = true;
        refusal = null;
        const body = {
            label,
            required,
            help,
            section,
            unique: canBeUnique && unique,
            requiredAt,
            ...(canBegin ? { default: begins } : {}),
            ...(kind === 'reference' ? { onDelete } : {}),
            ...(start && start.formula !== null ? { formula } : {}),
            ...(isNumber ? { min, max } : {}),
            ...(hasChoices ? { choices: asGiven($state.snapshot(choices)) } : {}),
        };
        try {
            if (start) {
                const path = { type: type.name, field: start.name };
                await ask(api.PATCH('/api/types/{type}/fields/{field}', { params: { path }, body: { ...body, version: type.version } }));
                toasts.tell('Saved.');
                ondone(start.name);
            } else {
                const more = {
                    ...(kind === 'reference' ? { target } : {}),
                    ...(kind === 'money' ? { currency } : {}),
                    ...(numbering.trim() ? { numbering } : {}),
                    ...(formula.trim() ? { formula } : {}),
                };
                const made = await ask(
                    api.POST('/api/types/{type}/fields', {
                        params: { path: { type: type.name } },
                        body: { ...body, ...more, type: kind },
                    }),
                );
                toasts.tell(`${type.plural} have ${label} now.`);
                ondone(made.name);
            }
        } catch (thrown) {
            if (thrown instanceof Refusal) refusal = thrown;
            else toasts.complain(said(thrown));
        }
        busy = false;
    }
</script>

<header>
    <h2 class="title text-[21px]!">{start ? start.label : `A new field for ${within(type.plural)}`}</h2>
    <p class="sub">
        {start ? `${KINDS[start.type]?.label ?? start.type}; rules know it as ${start.name}` : 'Every record has it at once, empty.'}
    </p>
</header>
<form class="scroll grid content-start gap-3 px-7 py-4 text-[13px]" onsubmit={keep}>
    <label class="grid gap-0.5 font-semibold"
        >What is it called?
        <Input class="font-normal" maxlength={60} required bind:value={label} />
        {#if problem('/label')}<span class="note-wrong font-normal" role="alert">{problem('/label')}</span>{/if}</label
    >
    {#if !start}
        <label class="grid gap-0.5 font-semibold"
            >What does it hold?
            <Select placeholder="" class="font-normal" bind:value={kind}>
                {#each Object.entries(KINDS) as [value, one] (value)}<option {value}>{one.label}: {one.says}</option>{/each}
            </Select></label
        >
        {#if kind === 'reference'}
            <label class="grid gap-0.5 font-semibold"
                >To which records does it lead?
                <Select placeholder="" class="font-normal" bind:value={target}>
                    {#each session.schema?.types ?? [] as one (one.name)}<option value={one.name}>{one.plural}</option>{/each}
                </Select></label
            >
        {:else if kind === 'money'}
            <label class="grid gap-0.5 font-semibold"
                >Currency
                <Input class="figures max-w-24 font-normal" maxlength={3} bind:value={currency} />
                {#if problem('/currency')}<span class="note-wrong font-normal" role="alert">{problem('/currency')}</span>{/if}</label
            >
        {/if}
    {/if}
    {#if hasChoices}<div>
            <span class="font-semibold">Choices, in the order they are offered</span><ChoiceRows bind:choices {problem} />
        </div>{/if}
    {#if isNumber}
        <div class="grid grid-cols-2 gap-3">
            {#each [['min', 'At least'], ['max', 'At most']] as const as [member, words] (member)}
                <label class="grid gap-0.5 font-semibold"
                    >{words}
                    <NumberField
                        class="font-normal"
                        placeholder="anything"
                        bind:value={
                            () => (member === 'min' ? min : max),
                            (next) => (member === 'min' ? (min = String(next ?? '')) : (max = String(next ?? '')))
                        }
                    />
                    {#if problem(`/${member}`)}<span class="note-wrong font-normal" role="alert">{problem(`/${member}`)}</span>{/if}</label
                >
            {/each}
        </div>
    {/if}
    {#if !start && isGiven && canBeUnique}
        <details>
            <summary class="cursor-pointer text-ink-2">It fills itself in…</summary>
            <div class="mt-2 grid gap-3">
                <div class="grid gap-0.5 font-semibold">
                    <span class="flex items-center"
                        ><label for="formula">By a formula over other fields</label><What word={say('A formula')}
                            >Other fields by their names, reckoned anew whenever one of them changes.{#snippet example()}<span
                                    class="figures">hours * 85</span
                                >, <span class="figures">days(start, end)</span>{/snippet}</What
                        ></span
                    >
                    <Input id="formula" class="figures font-normal" placeholder="hours * 85" bind:value={formula} />
                </div>
                {#if isNumber}<div class="grid gap-0.5 font-semibold">
                        By points that add up
                        <ScorePoints fields={type.fields} onchange={(points) => (scored = points)} />
                        {#if scored}<button type="button" class="btn justify-self-start" onclick={() => (formula = scored)}
                                >Use these points</button
                            >{/if}
                    </div>{/if}
                {#if kind === 'text'}<label class="grid gap-0.5 font-semibold"
                        >By counting
                        <Input class="figures font-normal" maxlength={60} placeholder={'INV-{year}-{0000}'} bind:value={numbering} />
                    </label>{/if}
            </div>
        </details>
    {:else if !isGiven}
        <label class="grid gap-0.5 font-semibold"
            >{formula ? 'Reckoned as' : 'Counted as'}
            {#if formula}<Input class="figures font-normal" bind:value={formula} />
                {#if problem('/formula')}<span class="note-wrong font-normal" role="alert">{problem('/formula')}</span>{/if}
            {:else}<Input class="figures font-normal" disabled={start !== null} bind:value={numbering} />
                {#if problem('/numbering')}<span class="note-wrong font-normal" role="alert">{problem('/numbering')}</span>{/if}{/if}
        </label>
    {/if}
    {#if canBegin}
        <label class="grid gap-0.5 font-semibold"
            >A new record begins with
            {#if kind === 'choice' && choices.some((choice) => choice.value)}
                <Select placeholder="" class="font-normal" bind:value={begins}>
                    <option value="">nothing</option>
                    {#each choices.filter((choice) => choice.value && !choice.isRetired) as choice (choice.value)}<option
                            value={choice.value}>{choice.label}</option
                        >{/each}
                </Select>
            {:else if kind === 'tick'}
                <Select placeholder="" class="font-normal" bind:value={begins}
                    ><option value="">not ticked</option><option value="true">ticked</option></Select
                >
            {:else}<Input class="font-normal" placeholder="nothing" bind:value={begins} />{/if}
            {#if problem('/default')}<span class="note-wrong font-normal" role="alert">{problem('/default')}</span>{/if}</label
        >
    {/if}
    {#if kind === 'reference'}
        <label class="grid gap-0.5 font-semibold"
            >When that record is deleted, then
            <Select placeholder="" class="font-normal" bind:value={onDelete}>
                {#each Object.entries(ON_DELETE) as [value, words] (value)}<option {value}>{words}</option>{/each}
            </Select>
            {#if problem('/onDelete')}<span class="note-wrong font-normal" role="alert">{problem('/onDelete')}</span>{/if}</label
        >
    {/if}
    {#if canBeUnique}
        <label class="flex items-center gap-2"><Checkbox class="h-4 w-4" bind:checked={unique} /> No two records have the same</label>
        {#if problem('/unique')}<span class="note-wrong" role="alert">{problem('/unique')}</span>{/if}
    {/if}
    {#if kind !== 'tick' && isGiven}
        <label class="flex items-center gap-2"><Checkbox class="h-4 w-4" bind:checked={required} /> No record without it</label>
    {/if}
    {#if stage && isGiven && stage.name !== start?.name && !required}
        <fieldset>
            <legend class="font-semibold">Asked for when {stage.label} is</legend>
            <div class="flex flex-wrap gap-x-4 gap-y-1 pt-1">
                {#each stage.choices.filter((choice) => !choice.isRetired) as choice (choice.value)}
                    <label class="flex items-center gap-1.5"><Checkbox value={choice.value} bind:group={requiredAt} />{choice.label}</label>
                {/each}
            </div>
        </fieldset>
    {/if}
    <label class="grid gap-0.5 font-semibold"
        >Under which heading does it stand?
        <Input class="font-normal" maxlength={40} list="sections" placeholder="none" bind:value={section} />
        <datalist id="sections"
            >{#each sections as one (one)}<option value={one}></option>{/each}</datalist
        ></label
    >
    <label class="grid gap-0.5 font-semibold"
        >What somebody who fills it in should know
        <Input class="font-normal" maxlength={300} placeholder="nothing in particular" bind:value={help} /></label
    >
    {#if uses.data?.length}
        <p class="text-ink-2">
            Named by
            {#each uses.data as use, index (`${use.kind} ${use.name}`)}{index ? ', ' : ''}{use.kind}
                <a class="link" href={use.path}>{use.name}</a>{/each}.
        </p>
    {/if}
    {#if refusal && !refusal.problem.problems.length}<p class="callout bad" role="alert">{refusal.message}</p>{/if}
    <div class="flex gap-2">
        <button class="btn go" disabled={busy}>{start ? 'Save' : 'Add the field'}</button>
        {#if start && start.name !== type.title && start.name !== type.owner}
            <button type="button" class="btn quiet danger ml-auto" onclick={onretire}>Retire it</button>
        {/if}
    </div>
</form>
