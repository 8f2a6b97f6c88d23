<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { AtSign, Bell, ListTodo, MessageSquare } from '@lucide/svelte';
    import { api, ask } from '../api/client';
    import { moment } from '../state/moments';
    import { waiting } from '../state/waiting';
    import Floating from './Floating.svelte';

    /* What happened for whoever is signed in, since they last looked. */
    const client = useQueryClient();
    let anchor = $state<HTMLElement | null>(null);
    const notices = createQuery(() => ({
        queryKey: ['notices'],
        queryFn: () => ask(api.GET('/api/notices')),
        enabled: anchor !== null,
    }));
    const held = waiting();
    const fresh = $derived(held.data?.notices ?? 0);

    function open(event: MouseEvent & { currentTarget: HTMLElement }) {
        anchor = anchor ? null : event.currentTarget;
    }

    async function close() {
        anchor = null;
        if (fresh === 0) return;
        await ask(api.POST('/api/notices/seen'));
        await client.invalidateQueries({ queryKey: ['notices'] });
    }
</script>

<button type="button" class="bell" aria-label="Notices{fresh ? `, ${fresh} new` : ''}" aria-expanded={anchor !== null} onclick={open}>
    <Bell size={17} />
    {#if fresh}<span class="count" aria-hidden="true">{fresh}</span>{/if}
</button>
{#if anchor}
    <Floating {anchor} label="Notices" onclose={() => void close()}>
        <div class="max-h-[60vh] w-[340px] overflow-auto py-1" data-notices>
            {#each notices.data?.notices ?? [] as notice, index (index)}
                <a
                    class="grid grid-cols-[18px_1fr] gap-x-2 px-4 py-2 text-[13px] hover:bg-iris-wash {notice.isNew ? '' : 'text-ink-2'}"
                    href={notice.recordType ? `/records/${notice.recordType}/${notice.recordId}` : '/'}
                    onclick={() => void close()}
                >
                    <span class="pt-0.5 text-ink-3"
                        >{#if notice.kind === 'task'}<ListTodo size={15} aria-label="Task" />{:else if notice.kind === 'mention'}<AtSign
                                size={15}
                                aria-label="Named in a comment"
                            />{:else}<MessageSquare size={15} aria-label="Note" />{/if}</span
                    >
                    <span
                        ><span class={notice.isNew ? 'font-semibold' : ''}>{notice.title}</span>
                        <span class="mini block"><span class="figures">{moment(notice.at)}</span> {notice.recordNumber}</span></span
                    >
                </a>
            {:else}{#if notices.data}<p class="mini px-4 py-3">Nothing has happened for you yet.</p>{/if}{/each}
        </div>
    </Floating>
{/if}
