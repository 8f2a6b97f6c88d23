<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import Shown from '../../parts/Shown.svelte';
    import Stamp from '../../parts/Stamp.svelte';
    import { day, moment } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import Acts from './Acts.svelte';
    import type { Act } from './acts';
    import { caseQuery } from './case';
    import { toneOf, wordOf } from './status';
    import StandsLeaf from './StandsLeaf.svelte';
    import { say, within } from '../../state/words';

    /* One case: what it is about, what the change was, where it stands, and what was decided before. */
    type Props = { signOff: Resources['SignOffResource']; onact: (act: Act, place?: number) => void };
    let { signOff, onact }: Props = $props();
    const type = $derived(session.type(signOff.recordType));
    const path = $derived({ type: signOff.recordType, id: signOff.recordId });
    const record = createQuery(() => ({
        queryKey: ['record', signOff.recordType, signOff.recordId],
        queryFn: () => ask(api.GET('/api/records/{type}/{id}', { params: { path } })),
    }));
    const file = createQuery(() => caseQuery(signOff));
    const facts = $derived.by(() => {
        const values = record.data?.values;
        if (!values) return [];
        const filled = type.fields.filter((field) => !field.system && field.name !== type.title && values[field.name] !== null);
        return filled.filter((field) => field.type !== 'long_text' && values[field.name] !== false).slice(0, 8);
    });
</script>

<header>
    <h2 class="title text-[21px]!">
        <a class="hover:text-iris" href="/records/{signOff.recordType}/{signOff.recordId}">{signOff.recordTitle}</a>
    </h2>
    <p class="sub">
        {type.label} <span class="figures">{signOff.recordNumber}</span> ·
        <a class="hover:text-iris" href="/ledger/{signOff.entry}">{signOff.ruleName}</a>
        {#if signOff.asker}· asked by {signOff.asker}{/if}
    </p>
    {#if signOff.why}<p class="mt-2">{signOff.why}</p>{/if}
    {#if file.data?.amount}
        <p class="mt-1 text-[13px] text-ink-2">
            It is about <b class="text-ink figures">{file.data.amount}</b>{#if signOff.mine}; your limit is
                <b class="text-ink figures">{file.data.limit ?? say('none')}</b>{/if}.
        </p>
    {/if}
    <div class="mt-3"><Acts {signOff} {onact} /></div>
</header>
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="scroll" style="--margin-at: 116px" role="region" aria-label="The case" tabindex="0">
    {#if file.isError}<p class="callout bad mx-7">{said(file.error)}</p>{/if}
    {#if file.data?.changed.length && !file.data.isNew}
        <h3 class="px-7 pt-3 text-[13px] font-semibold">What changed</h3>
        <dl class="px-7 pb-2">
            {#each file.data.changed as one (one.label)}
                <div class="grid grid-cols-[120px_1fr] gap-2 border-b border-ruled py-1.5 text-[13px]">
                    <dt class="text-ink-2">{one.label}</dt>
                    <dd class="min-w-0"><span class="text-ink-3">{one.before}</span> → <b class="font-semibold">{one.after}</b></dd>
                </div>
            {/each}
        </dl>
    {/if}
    <h3 class="px-7 pt-2 pb-1 text-[13px] font-semibold">Where it stands</h3>
    <StandsLeaf {signOff} coming={file.data?.ahead ?? []} onanswer={(place) => onact('answer', place)} />
    {#if signOff.locks}
        <p class="callout mx-7 mt-3 text-[13px]">
            The record is locked since {moment(signOff.startedAt)}.
            {#if session.me?.mayEditRules}<button type="button" class="link" onclick={() => onact('unlock')}>Release it…</button>{/if}
        </p>
    {/if}
    {#if record.data}
        {@const shown = record.data}
        <h3 class="px-7 pt-4 text-[13px] font-semibold">The {within(type.label)} now</h3>
        <dl class="px-7 pb-3">
            {#each facts as field (field.name)}
                <div class="grid grid-cols-[120px_1fr] gap-2 border-b border-ruled py-1.5 text-[13px]">
                    <dt class="text-ink-2">{field.label}</dt>
                    <dd class="min-w-0 truncate font-medium"><Shown record={shown} {field} /></dd>
                </div>
            {/each}
        </dl>
    {/if}
    {#if file.data?.before.length}
        <h3 class="px-7 pt-2 text-[13px] font-semibold">Decided before</h3>
        <ul class="px-7 pb-6">
            {#each file.data.before as one (one.id)}
                <li class="grid grid-cols-[120px_1fr_auto] items-baseline gap-2 border-b border-ruled py-1.5 text-[13px]">
                    <span class="figures mini">{day(one.endedAt ?? one.startedAt)}</span>
                    <span class="min-w-0 truncate"
                        ><a class="hover:text-iris" href="/records/{one.recordType}/{one.recordId}">{one.recordTitle}</a>
                        <span class="text-ink-3">{one.why}</span></span
                    >
                    <Stamp tone={toneOf(one.status)}>{wordOf(one.status)}</Stamp>
                </li>
            {/each}
        </ul>
    {/if}
</div>
