<#-- One line for each library in the jar: name, version, address, licences as SPDX identifiers. -->
<#list dependencyMap as entry>
<#assign project = entry.getKey()/>
<#assign licences = entry.getValue()/>
${project.groupId}:${project.artifactId}	${project.version}	${(project.url!"")}	<#list licences as licence>${licence}<#if licence_has_next> OR </#if></#list>
</#list>
