/* What is wrong with how a page lies: cut texts, covered controls, texts on texts, pages too wide. */
() => {
  const found = [];
  const shown = (e) => {
    const box = e.getBoundingClientRect();
    if (box.width < 1.5 || box.height < 1.5) return false;
    return e.checkVisibility({ opacityProperty: true, visibilityProperty: true, contentVisibilityAuto: true });
  };
  const name = (e) => {
    const text = (e.getAttribute('aria-label') || e.textContent || '').trim().replace(/\s+/g, ' ');
    return `${e.tagName.toLowerCase()} “${text.slice(0, 50)}”`;
  };
  /* The part of a box that its scrolling and clipping ancestors let be seen. */
  const seen = (e, box) => {
    let { left, top, right, bottom } = box;
    for (let up = e; up; up = up.parentElement) {
      const style = getComputedStyle(up);
      if (style.overflowX === 'visible' && style.overflowY === 'visible') continue;
      const edge = up.getBoundingClientRect();
      left = Math.max(left, edge.left);
      right = Math.min(right, edge.right);
      top = Math.max(top, edge.top);
      bottom = Math.min(bottom, edge.bottom);
    }
    left = Math.max(left, 0);
    top = Math.max(top, 0);
    right = Math.min(right, innerWidth);
    bottom = Math.min(bottom, innerHeight);
    return right - left > 1 && bottom - top > 1 ? { left, top, right, bottom } : null;
  };
  for (const [name, part] of [['page', document.documentElement], ['step', document.getElementById('work')]])
    if (part && part.scrollWidth > part.clientWidth + 1)
      found.push(`the ${name} is ${part.scrollWidth - part.clientWidth} px too wide`);
  for (const e of document.querySelectorAll('body *')) {
    if (!shown(e) || e.closest('svg, .sr-only, [inert]')) continue;
    const style = getComputedStyle(e);
    if (style.position === 'absolute' && style.clip === 'rect(0px, 0px, 0px, 0px)') continue;
    const dots = style.textOverflow === 'ellipsis' && style.overflow !== 'visible';
    if (dots && e.scrollWidth > e.clientWidth + 1) found.push(`ends in dots: ${name(e)}`);
    const hides = (flow) => flow === 'hidden' || flow === 'clip';
    if (!dots && hides(style.overflowY) && e.scrollHeight > e.clientHeight + 2 && e.textContent.trim())
      found.push(`hides ${e.scrollHeight - e.clientHeight} px below: ${name(e)}`);
    if (!dots && hides(style.overflowX) && e.scrollWidth > e.clientWidth + 2 && e.textContent.trim())
      found.push(`hides ${e.scrollWidth - e.clientWidth} px beside: ${name(e)}`);
  }
  const controls = 'button, a[href], input, select, textarea, [role=tab], [role=combobox], [role=slider]';
  for (const e of document.querySelectorAll(controls)) {
    if (!shown(e) || e.closest('.sr-only, [inert], [aria-hidden=true]')) continue;
    const box = seen(e, e.getBoundingClientRect());
    if (!box || box.bottom - box.top < 8) continue;
    const top = document.elementFromPoint((box.left + box.right) / 2, (box.top + box.bottom) / 2);
    if (top && !e.contains(top) && !top.contains(e) && !top.closest('label')?.contains(e))
      found.push(`covered: ${name(e)} by ${name(top)}`);
  }
  /* Texts on texts, in the page and in its drawings. */
  const runs = [];
  const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  for (let node = walk.nextNode(); node; node = walk.nextNode()) {
    const e = node.parentElement;
    if (!node.data.trim() || !e || !shown(e) || e.closest('.sr-only, script, style, [aria-hidden=true] option')) continue;
    const range = document.createRange();
    range.selectNodeContents(node);
    for (const rect of range.getClientRects()) {
      const box = seen(e, rect);
      if (box && box.right - box.left > 2 && box.bottom - box.top > 4) runs.push({ e, box, text: node.data.trim() });
    }
  }
  runs.sort((a, b) => a.box.left - b.box.left);
  for (let i = 0; i < runs.length; i++) {
    for (let j = i + 1; j < runs.length && runs[j].box.left < runs[i].box.right - 2; j++) {
      const [a, b] = [runs[i], runs[j]];
      if (a.e === b.e || a.e.contains(b.e) || b.e.contains(a.e)) continue;
      const wide = Math.min(a.box.right, b.box.right) - Math.max(a.box.left, b.box.left);
      const high = Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.top, b.box.top);
      const least = Math.min(a.box.bottom - a.box.top, b.box.bottom - b.box.top);
      if (wide > 2 && high > least * 0.45) found.push(`“${a.text.slice(0, 40)}” lies on “${b.text.slice(0, 40)}”`);
    }
  }
  return [...new Set(found)];
}
