<script lang="ts">
    import { Select } from 'flowbite-svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { untrack } from 'svelte';
    import { api, ask, Refusal, said, type Resources } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import FieldInput from '../records/FieldInput.svelte';
    import type { Act } from './acts';
    import { caseQuery } from './case';
    import Area from '../../parts/fields/Area.svelte';
    import { counted, say } from '../../state/words';

    /* What somebody does with one sign-off, or says of several: asked once more, with what has to be said. */
    type Props = { act: Act; cases: Resources['SignOffResource'][]; place?: number; onclose: () => void; ondone: () => void };
    const given: Props = $props();
    // What it was opened for, whatever becomes of the list meanwhile.
    const { act, cases, place = 0 } = untrack(() => ({ ...given }));
    const client = useQueryClient();
    const one = cases[0];
    let text = $state('');
    let to = $state('');
    let busy = $state(false);
    let done = $state(0);
    let problem = $state('');
    let corrections = $state<Record<string, string | number | boolean | null>>({});
    const BATCH = 25;

    const file = createQuery(() => caseQuery(one, act === 'yes' && cases.length === 1));
    const record = createQuery(() => ({
        queryKey: ['record', one?.recordType, one?.recordId],
        enabled: (file.data?.correct.length ?? 0) > 0,
        queryFn: () =>
            ask(api.GET('/api/records/{type}/{id}', { params: { path: { type: one?.recordType ?? '', id: one?.recordId ?? 0 } } })),
    }));
    const correctable = $derived(
        one && record.data && file.data
            ? session.type(one.recordType).fields.filter((field) => file.data?.correct.includes(field.name))
            : [],
    );
    const changed = $derived(
        Object.fromEntries(Object.entries(corrections).filter(([name, value]) => value !== (record.data?.values[name] ?? null))),
    );
    $effect(() => {
        // Once, when what may be corrected is known: afterwards it is theirs.
        if (record.data && correctable.length && untrack(() => Object.keys(corrections).length) === 0)
            corrections = Object.fromEntries(correctable.map((field) => [field.name, record.data?.values[field.name] ?? null]));
    });

    const wants = { yes: false, no: true, withdraw: false, hand: false, ask: true, answer: true, unlock: true };
    const words: Record<Act, { title: string; go: string; hint: string }> = $derived({
        yes: { title: counted(cases.length, ['Agree to this?', 'Agree to # sign-offs?']), go: 'Agree', hint: 'A comment, if you like' },
        no: {
            title: counted(cases.length, ['Decline this?', 'Decline # sign-offs?']),
            go: 'Decline',
            hint: 'Why not: whoever asked wants to know',
        },
        withdraw: { title: 'Withdraw this sign-off?', go: 'Withdraw', hint: '' },
        hand: { title: 'Hand it to somebody else?', go: 'Hand over', hint: 'A word to them, if you like' },
        ask: { title: 'Ask a question first', go: 'Ask', hint: 'What do you want to know?' },
        answer: { title: 'Answer the question', go: 'Answer', hint: 'Your answer' },
        unlock: { title: 'Release the record?', go: 'Release', hint: 'Why: the ledger keeps it' },
    });
    const ready = $derived(!busy && (!wants[act] || text.trim() !== '') && (act !== 'hand' || to !== ''));
    const question = $derived(act === 'answer' ? one?.seats[place]?.talk.at(-1)?.text : undefined);

    /** Where something has to be said, the dialog begins there and not at its button. */
    function keepFocus(box: HTMLTextAreaElement) {
        if (wants[act]) requestAnimationFrame(() => box.focus());
    }

    async function decide(answer: 'yes' | 'no') {
        const left: string[] = [];
        const ids = cases.map((signOff) => signOff.id);
        for (let from = 0; from < ids.length; from += BATCH) {
            const body = {
                ids: ids.slice(from, from + BATCH),
                answer,
                comment: text,
                ...(Object.keys(changed).length ? { corrections: changed } : {}),
            };
            const answered = await ask(api.POST('/api/sign-offs/answers', { body }));
            for (const each of answered) if (each.problem !== null) left.push(each.problem);
            done = Math.min(from + BATCH, ids.length);
        }
        const taken = ids.length - left.length;
        if (taken)
            toasts.tell(
                answer === 'yes'
                    ? counted(taken, ['# sign-off agreed to.', '# sign-offs agreed to.'])
                    : counted(taken, ['# sign-off declined.', '# sign-offs declined.']),
            );
        if (left[0]) toasts.complain(left.length === 1 ? left[0] : `${left.length} were not accepted: ${left[0]}`);
    }

    async function run() {
        if (!ready || !one) return;
        busy = true;
        problem = '';
        const path = { params: { path: { id: one.id } } };
        try {
            if (act === 'yes' || act === 'no') await decide(act);
            else if (act === 'withdraw') await ask(api.POST('/api/sign-offs/{id}/withdraw', path));
            else if (act === 'hand')
                await ask(api.POST('/api/sign-offs/{id}/hand-over', { ...path, body: { to: Number(to), comment: text } }));
            else if (act === 'ask') await ask(api.POST('/api/sign-offs/{id}/ask', { ...path, body: { question: text } }));
            else if (act === 'answer') await ask(api.POST('/api/sign-offs/{id}/answer-back', { ...path, body: { place, answer: text } }));
            else await ask(api.POST('/api/sign-offs/{id}/unlock', { ...path, body: { reason: text } }));
            const told: Partial<Record<Act, string>> = {
                withdraw: 'It is withdrawn. Nobody is asked any more.',
                hand: 'It is handed over.',
                ask: 'The question is sent. Time stands still until it is answered.',
                answer: 'The answer is sent.',
                unlock: 'The record is free. The sign-off goes on.',
            };
            if (told[act]) toasts.tell(told[act]);
            given.ondone();
        } catch (thrown) {
            problem = said(thrown);
            if (!(thrown instanceof Refusal)) toasts.complain(problem);
        }
        busy = false;
        for (const key of ['sign-offs', 'account', 'ledger', 'today', 'lines', 'record', 'tasks'])
            void client.invalidateQueries({ queryKey: [key] });
    }
</script>

<Confirm
    title={words[act].title}
    go={busy && cases.length > BATCH ? `${done} of ${cases.length}…` : words[act].go}
    danger={act === 'no' || act === 'withdraw'}
    busy={!ready}
    onconfirm={run}
    onclose={given.onclose}
>
    <ul>
        {#each cases.slice(0, 5) as signOff (signOff.id)}<li><b class="text-ink">{signOff.recordTitle}</b> {signOff.why}</li>{/each}
        {#if cases.length > 5}<li>and {cases.length - 5} more</li>{/if}
    </ul>
    {#if question}<p><q class="italic">{question}</q></p>{/if}
    {#if correctable.length && record.data}
        {@const shown = record.data}
        <div>
            <p class="mini mb-1">You may correct:</p>
            {#each correctable as field (field.name)}
                {#if field.name in corrections}
                    <FieldInput {field} bind:value={corrections[field.name]} shown={shown.shown[field.name] ?? ''} />
                {/if}
            {/each}
        </div>
    {/if}
    {#if act === 'hand'}
        <Select placeholder="" aria-label="To whom" bind:value={to}>
            <option value="">choose somebody</option>
            {#each session.people.filter((person) => person.active && person.id !== session.me?.id) as person (person.id)}
                <option value={String(person.id)}>{person.name}, {person.team}{person.away ? say(' (absent)') : ''}</option>
            {/each}
        </Select>
    {/if}
    {#if words[act].hint}
        <Area
            rows={3}
            aria-label={act === 'no' ? 'Why not' : act === 'yes' ? 'Comment' : words[act].hint}
            placeholder={words[act].hint}
            maxlength={act === 'unlock' ? 500 : 2000}
            {@attach keepFocus}
            onkeydown={(event) => {
                if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void run();
            }}
            bind:value={text}
        />
        <p class="mini"><kbd>Ctrl</kbd> <kbd>Enter</kbd> says it.</p>
    {:else}
        <p class="mini">Nobody is asked any more, and the lines that wait for a withdrawal are done.</p>
    {/if}
    {#if problem}<p class="note-wrong" role="alert">{problem}</p>{/if}
    {#if busy && cases.length > BATCH}
        <progress class="w-full" max={cases.length} value={done} aria-label="Decided so far"></progress>
    {/if}
</Confirm>
