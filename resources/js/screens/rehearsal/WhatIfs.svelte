<script lang="ts">
    import { Input, Select } from 'flowbite-svelte';
    import Floating from '../../parts/Floating.svelte';
    import { fromLocalField, moment, toLocalField } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import FieldSetter from './FieldSetter.svelte';
    import type { Rehearsal, WhatIf } from './rehearsal.svelte';
    import DateField from '../../parts/fields/DateField.svelte';
    import { say } from '../../state/words';

    let { rehearsal, type, at }: { rehearsal: Rehearsal; type: string; at: number } = $props();
    type Kind = WhatIf['kind'];
    let adding = $state<Kind | null>(null);
    let anchor = $state<HTMLElement | null>(null);
    let when = $state('');
    let until = $state('');
    let day = $state('');
    let text = $state('');
    let from = $state('');
    let event = $state<'reply' | 'comment'>('reply');
    let task = $state(1);
    let person = $state(0);
    let nth = $state(1);
    let answer = $state<'yes' | 'no'>('yes');
    let answers = $state<Record<string, string>>({});

    const played = $derived(rehearsal.played);
    const slips = $derived(played?.slips ?? []);
    const slip = $derived(slips.find((one) => one.number === Number(nth)));
    const signOffs = $derived(played?.signOffs ?? []);
    const tasks = $derived(played?.entries.flatMap((entry) => entry.tasks) ?? []);
    const OFFERS: { kind: Kind; label: string }[] = [
        { kind: 'word', label: '+ a reply' },
        { kind: 'change', label: '+ a change' },
        { kind: 'task_done', label: '+ a task done' },
        { kind: 'sign_off', label: '+ a sign-off decided' },
        { kind: 'slip', label: '+ a slip answered' },
        { kind: 'away', label: '+ somebody away' },
        { kind: 'holiday', label: '+ a holiday' },
    ];

    /** What the rehearsal has to have for it to be supposed. */
    const needs: Partial<Record<Kind, { length: number }>> = $derived({ task_done: tasks, sign_off: signOffs, slip: slips });

    /** Somewhere in the middle of what is still to come, at nine in the morning. */
    function proposed(): string {
        const from = Date.parse(played?.from ?? '');
        const last = Math.max(...(played?.entries ?? []).map((entry) => Date.parse(entry.entry.at)), Date.parse(played?.until ?? ''));
        const middle = new Date(at < last ? at : from + (last - from) / 2);
        return toLocalField(middle.toISOString());
    }

    function open(kind: Kind, click: Event) {
        anchor = click.currentTarget as HTMLElement;
        when = proposed();
        until = toLocalField(new Date(Date.parse(fromLocalField(when)) + 7 * 86_400_000).toISOString());
        day = when.slice(0, 10);
        text = '';
        from = '';
        task = tasks.find((one) => !one.done)?.number ?? 1;
        person = session.people[0]?.id ?? 0;
        nth = 1;
        answers = {};
        adding = kind;
    }

    function add(whatIf: WhatIf) {
        adding = null;
        rehearsal.suppose([...rehearsal.whatIfs, whatIf]);
    }

    function done(submit: SubmitEvent) {
        submit.preventDefault();
        if (adding === 'word') add({ kind: 'word', at: fromLocalField(when), event, text, from: event === 'reply' ? from : '' });
        else if (adding === 'task_done') add({ kind: 'task_done', at: fromLocalField(when), task: Number(task) });
        else if (adding === 'sign_off') add({ kind: 'sign_off', at: fromLocalField(when), sign_off: Number(nth), answer, comment: text });
        else if (adding === 'slip') {
            const given = Object.fromEntries(Object.entries(answers).filter(([, value]) => value !== ''));
            add({ kind: 'slip', at: fromLocalField(when), slip: Number(nth), answers: given });
        } else if (adding === 'away') add({ kind: 'away', at: fromLocalField(when), until: fromLocalField(until), person: Number(person) });
        else if (adding === 'holiday') add({ kind: 'holiday', day });
    }

    function chip(whatIf: WhatIf, index: number): string {
        const said = played?.whatIfs[index] ?? '…';
        if (whatIf.kind === 'holiday') return `${said} on ${whatIf.day}`;
        if (whatIf.kind === 'away') return `${said} from ${moment(whatIf.at)} to ${moment(whatIf.until)}`;
        return `${said}, ${moment(whatIf.at)}`;
    }
</script>

<div class="flex flex-wrap gap-1.5">
    {#each rehearsal.whatIfs as whatIf, index (index)}
        <span class="supposed on" data-what-if={index}
            >{chip(whatIf, index)}
            <button
                type="button"
                class="font-semibold"
                aria-label="Take it away: {chip(whatIf, index)}"
                onclick={() => rehearsal.suppose(rehearsal.whatIfs.filter((_, place) => place !== index))}>×</button
            ></span
        >
    {/each}
    {#each OFFERS as offer (offer.kind)}
        {#if needs[offer.kind]?.length !== 0}
            <button type="button" class="supposed" onclick={(click) => open(offer.kind, click)}>{offer.label}</button>
        {/if}
    {/each}
</div>

{#if adding && anchor}
    <Floating {anchor} label="What if" onclose={() => (adding = null)}>
        {#if adding === 'change'}
            <FieldSetter
                title="What if these fields change?"
                {type}
                values={{}}
                at={fromLocalField(when)}
                ondone={(set, at_) => add({ kind: 'change', at: at_ ?? fromLocalField(when), set })}
            />
        {:else}
            <form class="w-[320px]" onsubmit={done}>
                <div class="space-y-2 px-4 py-3 text-[12.5px]">
                    {#if adding === 'word'}
                        <label class="grid grid-cols-[80px_1fr] items-center gap-2"
                            ><span>What</span><Select placeholder="" bind:value={event}
                                ><option value="reply">a reply arrives</option><option value="comment">somebody comments</option></Select
                            ></label
                        >
                        <label class="grid grid-cols-[80px_1fr] items-center gap-2"
                            >It says<Input placeholder="nothing in particular" bind:value={text} /></label
                        >
                        {#if event === 'reply'}<label class="grid grid-cols-[80px_1fr] items-center gap-2"
                                >From<Input placeholder="anybody" maxlength={200} bind:value={from} /></label
                            >{/if}
                    {:else if adding === 'task_done'}
                        <label class="grid grid-cols-[80px_1fr] items-center gap-2"
                            >Task<Select placeholder="" bind:value={task}
                                >{#each tasks as one (one.number)}<option value={one.number}
                                        >{one.title}, {one.person ?? say('nobody')}</option
                                    >{/each}</Select
                            ></label
                        >
                    {:else if adding === 'sign_off'}
                        <label class="grid grid-cols-[80px_1fr] items-center gap-2"
                            >Sign-off<Select placeholder="" bind:value={nth}
                                >{#each signOffs as one, place (place)}<option value={place + 1}>{one}</option>{/each}</Select
                            ></label
                        >
                        <label class="grid grid-cols-[80px_1fr] items-center gap-2"
                            ><span>Is</span><Select placeholder="" bind:value={answer}
                                ><option value="yes">agreed</option><option value="no">declined</option></Select
                            ></label
                        >
                    {:else if adding === 'slip'}
                        <label class="grid grid-cols-[80px_1fr] items-center gap-2"
                            >Slip<Select placeholder="" bind:value={nth}
                                >{#each slips as one (one.number)}<option value={one.number}>{one.subject}</option>{/each}</Select
                            ></label
                        >
                        {#each slip?.questions ?? [] as question, place (place)}
                            <label class="block"
                                ><span class="mini block">{question.asked}{question.isNeeded ? '' : ', if you like'}</span>
                                {#if question.choices.length}<Select placeholder="" bind:value={answers[String(place)]}
                                        ><option value="">nothing</option>{#each question.choices as choice (choice.value)}<option
                                                value={choice.value}>{choice.label}</option
                                            >{/each}</Select
                                    >
                                {:else if question.type === 'tick'}<Select placeholder="" bind:value={answers[String(place)]}
                                        ><option value="">not ticked</option><option value="1">ticked</option></Select
                                    >
                                {:else if question.type === 'date'}<DateField
                                        label={question.asked}
                                        bind:value={() => answers[String(place)] ?? '', (next) => (answers[String(place)] = next ?? '')}
                                    />{:else}<Input bind:value={answers[String(place)]} />{/if}</label
                            >
                        {/each}
                    {:else if adding === 'away'}
                        <label class="grid grid-cols-[80px_1fr] items-center gap-2"
                            >Who<Select placeholder="" bind:value={person}
                                >{#each session.people as one (one.id)}<option value={one.id}>{one.name}</option>{/each}</Select
                            ></label
                        >
                    {/if}
                    {#if adding === 'holiday'}
                        <label class="grid grid-cols-[80px_1fr] items-center gap-2"
                            >Day<DateField label="Day" required bind:value={day} /></label
                        >
                    {:else}
                        <label class="grid grid-cols-[80px_1fr] items-center gap-2"
                            >{adding === 'away' ? 'From' : 'When'}<DateField
                                time
                                label={adding === 'away' ? 'From' : 'When'}
                                required
                                bind:value={when}
                            /></label
                        >
                    {/if}
                    {#if adding === 'away'}
                        <label class="grid grid-cols-[80px_1fr] items-center gap-2"
                            >Until<DateField time label="Until" required bind:value={until} /></label
                        >
                    {/if}
                </div>
                <div class="keys">
                    <span><kbd>Enter</kbd>suppose it</span><span><kbd>Esc</kbd>close</span><button class="link ml-auto">Suppose it</button>
                </div>
            </form>
        {/if}
    </Floating>
{/if}
