<script lang="ts">
    import { autoUpdate, computePosition, flip, offset, shift, type Placement } from '@floating-ui/dom';
    import type { Snippet } from 'svelte';
    import { ahead, writes } from './ahead';
    import { takesFocus } from './focus';

    type Props = { anchor: HTMLElement; label: string; placement?: Placement; onclose: () => void; children: Snippet };
    let { anchor, label, placement = 'bottom-start', onclose, children }: Props = $props();
    let panel = $state<HTMLDivElement>();

    $effect(() => {
        const floating = panel;
        if (!floating) return;
        return autoUpdate(anchor, floating, async () => {
            // What it hangs on may be gone for a moment, or for good; it stays where it was, under the hand that is about to press.
            if (anchor.getClientRects().length === 0 && floating.style.left) return;
            const at = await computePosition(anchor, floating, {
                placement,
                middleware: [
                    offset(6),
                    flip({ padding: 8, ...(placement === 'bottom-start' ? {} : { fallbackPlacements: ['bottom-start', 'top-start'] }) }),
                    shift({ padding: 8 }),
                ],
            });
            Object.assign(floating.style, { left: `${at.x}px`, top: `${at.y}px` });
        });
    });

    function outside(event: PointerEvent) {
        const target = event.target as Node;
        if (!panel?.contains(target) && !anchor.contains(target)) onclose();
    }

    function key(event: KeyboardEvent) {
        if (event.key === 'Escape') {
            event.preventDefault();
            event.stopPropagation();
            onclose();
        } else if (event.target === panel && (writes(event) || [' ', 'Enter'].includes(event.key))) {
            // What it shows is still to come: what is typed meanwhile waits for it.
            event.preventDefault();
            ahead.add(event.key);
        }
    }

    /** Out of whatever scrolls, so that nothing cuts the panel off; a dialog stands above all that is not in it. */
    function toBody(node: HTMLElement) {
        (anchor.closest('dialog') ?? document.body).append(node);
        // Moving a node takes the focus from what is in it.
        takesFocus(node.querySelector<HTMLElement>('input, textarea, select, button') ?? node);
        return { destroy: () => node.remove() };
    }
</script>

<svelte:window onpointerdown={outside} />

<div bind:this={panel} use:toBody class="floating" role="dialog" aria-label={label} tabindex="-1" onkeydown={key}>
    {@render children()}
</div>
