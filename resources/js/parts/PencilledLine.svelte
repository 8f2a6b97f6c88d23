<script lang="ts">
    import { Input } from 'flowbite-svelte';
    import { useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../api/client';
    import Confirm from './Confirm.svelte';
    import { ahead, moment, timeOfDay } from '../state/moments';
    import { session } from '../state/session.svelte';
    import { toasts } from '../state/toasts.svelte';

    /* Something pencilled in, and what a person can do about it. */
    type Props = { line: Resources['AheadResource']; withRecord?: boolean };
    let { line, withRecord = false }: Props = $props();
    const client = useQueryClient();
    type Act = 'hold' | 'resume' | 'strike' | 'now';
    let asking = $state<Act | null>(null);
    let why = $state('');
    const held = $derived(line.status === 'held');
    const may = $derived((session.me?.mayEditRecords ?? false) && line.kind !== 'task_due');
    const titles: Record<Act, [string, string]> = {
        hold: ['Hold this line?', 'Hold it'],
        resume: ['Let this line go on?', 'Let it go on'],
        strike: ['Strike out this line?', 'Strike it out'],
        now: ['Have this line done now?', 'Do it now'],
    };

    async function act() {
        const doing = asking;
        if (!doing) return;
        try {
            const call = { params: { path: { id: line.id } }, body: { why } };
            if (doing === 'hold') await ask(api.POST('/api/lines/{id}/hold', call));
            else if (doing === 'resume') await ask(api.POST('/api/lines/{id}/resume', call));
            else if (doing === 'strike') await ask(api.POST('/api/lines/{id}/strike', call));
            else await ask(api.POST('/api/lines/{id}/now', call));
            why = '';
            asking = null;
            void client.invalidateQueries();
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }
</script>

<div class="line pencilled" data-ahead={line.id}>
    <div class="m pencilled">
        {#if held}held{:else if line.due}{withRecord ? timeOfDay(line.due) : moment(line.due)}{:else}waits{/if}
        {#if line.due && !withRecord}<div class="text-[10.5px] text-ink-3">{held ? moment(line.due) : ahead(line.due)}</div>{/if}
    </div>
    <div class="b text-[13.5px]!">
        <b>{line.lead}</b>
        {line.title}
        <div class="flex flex-wrap gap-x-3 text-[12.5px] text-ink-3">
            {#if withRecord}<a class="hover:text-iris" href="/records/{line.recordType}/{line.recordId}"
                    >{line.recordNumber} {line.recordTitle}</a
                >{/if}
            <span>{[line.person, line.ruleName, line.note].filter(Boolean).join(', ')}</span>
            {#if line.meant && line.due}<span>meant for {moment(line.meant)}; quiet hours end {moment(line.due)}</span>{/if}
            {#if may}
                <span class="acts flex gap-2.5">
                    {#if held}<button type="button" class="link" onclick={() => (asking = 'resume')}>Go on</button>
                    {:else}<button type="button" class="link" onclick={() => (asking = 'hold')}>Hold</button>{/if}
                    <button type="button" class="link" onclick={() => (asking = 'strike')}>Strike out</button>
                    {#if line.due || held}<button type="button" class="link" onclick={() => (asking = 'now')}>Do it now</button>{/if}
                </span>
            {/if}
        </div>
    </div>
</div>

{#if asking}
    <Confirm title={titles[asking][0]} go={titles[asking][1]} danger={asking === 'strike'} onconfirm={act} onclose={() => (asking = null)}>
        <p><b class="text-ink">{line.title}</b>{line.due ? `, ${moment(line.due)}` : ''}</p>
        <Input aria-label="Why" placeholder="Why" maxlength={200} bind:value={why} />
        <p class="mini">The ledger keeps who did this, and why.</p>
    </Confirm>
{/if}
